/** Values of some rows, in their order. Plain loops: making typed arrays by a function for each value takes ten times as long. */
export function pick(rows: ArrayLike<number>, of: (row: number) => number): Uint32Array {
  const values = new Uint32Array(rows.length);
  for (let r = 0; r < rows.length; r++) values[r] = of(rows[r]);
  return values;
}

export function pickNumbers(rows: ArrayLike<number>, of: (row: number) => number): Float64Array {
  const values = new Float64Array(rows.length);
  for (let r = 0; r < rows.length; r++) values[r] = of(rows[r]);
  return values;
}

/** Rows put in groups, each as they come: group g has the rows values[start[g]] to values[start[g + 1] - 1]. */
interface Grouped {
  readonly start: Uint32Array;
  readonly values: Uint32Array;
}

/**
 * Puts values in the groups of their rows, in the order in which they come (a counting sort, so that equal ones keep their order).
 * @param order rows in the order in which they are gone through; all as they stand where it is left out
 */
export function groupRows(groups: number, group: Uint32Array, order?: Uint32Array): Grouped {
  const start = new Uint32Array(groups + 1);
  for (const g of group) start[g + 1]++;
  for (let g = 0; g < groups; g++) start[g + 1] += start[g];
  const next = start.slice(0, groups);
  const values = new Uint32Array(group.length);
  for (let i = 0; i < group.length; i++) {
    const row = order ? order[i] : i;
    values[next[group[row]]++] = row;
  }
  return { start, values };
}

/** Numbers for keys, ascending like the keys. */
export interface Numbered {
  readonly count: number;
  /** The number of each row's key. */
  readonly of: Uint32Array;
  readonly keys: Float64Array;
}

/** Keys up to this one are numbered by a table. */
const LARGEST_TABLE = 50_000_000;

/** Numbers the keys of rows: whole numbers from 0 on. */
export function numberKeys(rows: ArrayLike<number>, keyOf: (row: number) => number): Numbered {
  const key = pickNumbers(rows, keyOf);
  let largest = -1;
  for (const k of key) if (k > largest) largest = k;
  return largest < LARGEST_TABLE ? byTable(key, largest) : bySorting(key);
}

function byTable(key: Float64Array, largest: number): Numbered {
  const number = new Int32Array(largest + 1);
  for (const k of key) number[k] = 1;
  let count = 0;
  for (let k = 0; k <= largest; k++) number[k] = number[k] === 1 ? count++ : -1;
  const keys = new Float64Array(count);
  for (let k = 0; k <= largest; k++) if (number[k] >= 0) keys[number[k]] = k;
  const of = new Uint32Array(key.length);
  for (let i = 0; i < key.length; i++) of[i] = number[key[i]];
  return { count, of, keys };
}

function bySorting(key: Float64Array): Numbered {
  const sorted = key.slice().sort();
  let count = 0;
  for (let i = 0; i < sorted.length; i++)
    if (i === 0 || sorted[i] !== sorted[i - 1]) sorted[count++] = sorted[i];
  const keys = sorted.slice(0, count);
  const place = new Map<number, number>();
  keys.forEach((k, i) => place.set(k, i));
  const of = new Uint32Array(key.length);
  for (let i = 0; i < key.length; i++) of[i] = place.get(key[i])!;
  return { count, of, keys };
}

/** The set of a key; an empty one is made where there is none yet. */
export function setOf(sets: Map<number, Set<number>>, key: number): Set<number> {
  let set = sets.get(key);
  if (!set) sets.set(key, (set = new Set()));
  return set;
}
