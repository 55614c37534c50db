/** How many items are in each pair of groups of two groupings. */
export interface Crossing {
  /** Groups of either in the order in which they first appear. */
  readonly rows: readonly number[];
  readonly columns: readonly number[];
  /** Items by row and column, row by row. */
  readonly cells: Float64Array;
  readonly rowSums: Float64Array;
  readonly columnSums: Float64Array;
  readonly items: number;
}

/** Crosses two groupings of the same items. Throws a RangeError when they differ in length. */
export function crossing(a: ArrayLike<number>, b: ArrayLike<number>): Crossing {
  if (a.length !== b.length) throw new RangeError(`The groupings have ${a.length} and ${b.length} items.`);
  const [rowOf, columnOf] = [placesOf(a), placesOf(b)];
  const cells = new Float64Array(rowOf.size * columnOf.size);
  const rowSums = new Float64Array(rowOf.size);
  const columnSums = new Float64Array(columnOf.size);
  for (let i = 0; i < a.length; i++) {
    const [row, column] = [rowOf.get(a[i])!, columnOf.get(b[i])!];
    cells[row * columnOf.size + column]++;
    rowSums[row]++;
    columnSums[column]++;
  }
  return {
    rows: [...rowOf.keys()],
    columns: [...columnOf.keys()],
    cells,
    rowSums,
    columnSums,
    items: a.length,
  };
}

function placesOf(group: ArrayLike<number>): Map<number, number> {
  const places = new Map<number, number>();
  for (const one of Array.from(group)) if (!places.has(one)) places.set(one, places.size);
  return places;
}

/**
 * Adjusted Rand index of two groupings of the same items: 1 when they agree wholly, about 0 when they agree as much as
 * chance would, below 0 when less. Hubert & Arabie (1985), J. Classification 2.
 * Throws a RangeError when the groupings differ in length.
 */
export function adjustedRand(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const { cells, rowSums, columnSums, items } = crossing(a, b);
  const pairs = (counts: Float64Array): number =>
    counts.reduce((sum, count) => sum + (count * (count - 1)) / 2, 0);
  const both = pairs(cells);
  const rows = pairs(rowSums);
  const columns = pairs(columnSums);
  const expected = (rows * columns) / ((items * (items - 1)) / 2);
  const most = (rows + columns) / 2;
  return most === expected || items < 2 ? 1 : (both - expected) / (most - expected);
}

/**
 * Normalised mutual information of two groupings: what one says of the other over the mean of what each says; 0 when they are
 * independent, 1 when they are the same (Danon et al. 2005, J. Stat. Mech. P09008). 1 for two groupings of one group each.
 * Throws a RangeError when the groupings differ in length.
 */
export function mutualInformation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const { cells, rowSums, columnSums, items } = crossing(a, b);
  const columns = columnSums.length;
  let shared = 0;
  cells.forEach((count, at) => {
    if (count === 0) return;
    const expected = rowSums[Math.floor(at / columns)] * columnSums[at % columns];
    shared += (count / items) * Math.log((count * items) / expected);
  });
  const entropy = (sums: Float64Array): number =>
    -sums.reduce((sum, count) => sum + (count / items) * Math.log(count / items), 0);
  const both = entropy(rowSums) + entropy(columnSums);
  return both > 0 ? Math.min(1, (2 * shared) / both) : 1;
}
