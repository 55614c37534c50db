import type {
  FilterModel,
  ICombinedSimpleModel,
  NumberFilterModel,
  SortModelItem,
  TextFilterModel,
} from 'ag-grid-community';

export type Value = string | number;

/** A table by its columns: rows are made of them when they are seen. */
export interface Table {
  readonly rows: number;
  readonly names: readonly string[];
  /** The values of a column, by row. */
  readonly column: (name: string) => (row: number) => Value;
}

/** What is asked of the rows: filters and order as the heads of columns have them, and words that a row must contain. */
export interface Asked {
  readonly sort: readonly SortModelItem[];
  readonly filter: FilterModel;
  readonly words: string;
}

type Fits = (row: number) => boolean;
type Simple = TextFilterModel | NumberFilterModel;

/**
 * The rows that fit, in order; equal ones in the order of the table, and what has no value last. What is asked of a column that the table has
 * not is passed by: another table was shown a moment ago.
 */
export function orderOf(table: Table, { sort, filter, words }: Asked): Uint32Array {
  const isHere = (name: string): boolean => table.names.includes(name);
  const asked = Object.entries(filter ?? {}).filter(([name]) => isHere(name));
  const fits = [
    ...asked.map(([name, model]) => fitsColumn(table.column(name), model as Simple)),
    ...fitsWords(table, words),
  ];
  const rows = new Uint32Array(table.rows);
  let kept = 0;
  for (let row = 0; row < table.rows; row++) if (fits.every((fit) => fit(row))) rows[kept++] = row;
  const compares = sort
    .filter(({ colId }) => isHere(colId))
    .map(({ colId, sort: way }) => comparer(table, colId, way === 'desc' ? -1 : 1));
  const order = rows.subarray(0, kept);
  if (compares.length === 0) return order;
  return order.sort((a, b) => {
    for (const compare of compares) {
      const difference = compare(a, b);
      if (difference !== 0) return difference;
    }
    return a - b;
  });
}

function comparer({ rows, column }: Table, name: string, way: 1 | -1): (a: number, b: number) => number {
  const value = column(name);
  const values = Array.from({ length: rows }, (_, row) => value(row));
  return (a, b) => {
    const [x, y] = [values[a], values[b]];
    const [isNone, isNoneToo] = [isMissing(x), isMissing(y)];
    if (isNone || isNoneToo) return Number(isNone) - Number(isNoneToo);
    return x < y ? -way : x > y ? way : 0;
  };
}

const isMissing = (value: Value): boolean => value === '' || Number.isNaN(value) || value == null;

/** Whether a row has every word somewhere, in any case. */
function fitsWords({ names, column }: Table, typed: string): Fits[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  if (words.length === 0) return [];
  const columns = names.map(column);
  return [
    (row) => {
      const text = columns
        .map((value) => String(value(row)))
        .join('\n')
        .toLowerCase();
      return words.every((word) => text.includes(word));
    },
  ];
}

function fitsColumn(value: (row: number) => Value, model: Simple | ICombinedSimpleModel<Simple>): Fits {
  if ('conditions' in model && model.conditions) {
    const all = model.conditions.map((one) => fitsColumn(value, one));
    return model.operator === 'OR'
      ? (row) => all.some((fit) => fit(row))
      : (row) => all.every((fit) => fit(row));
  }
  const one = model as Simple;
  if (one.type === 'blank') return (row) => isMissing(value(row));
  if (one.type === 'notBlank') return (row) => !isMissing(value(row));
  return one.filterType === 'number' ? fitsNumber(value, one) : fitsText(value, one as TextFilterModel);
}

function fitsNumber(value: (row: number) => Value, { type, filter, filterTo }: NumberFilterModel): Fits {
  const [from, to] = [filter ?? NaN, filterTo ?? NaN];
  const tests: Readonly<Record<string, (x: number) => boolean>> = {
    equals: (x) => x === from,
    notEqual: (x) => x !== from,
    greaterThan: (x) => x > from,
    greaterThanOrEqual: (x) => x >= from,
    lessThan: (x) => x < from,
    lessThanOrEqual: (x) => x <= from,
    inRange: (x) => x > from && x < to,
  };
  const test = tests[type ?? ''];
  return test ? (row) => test(Number(value(row))) : () => true;
}

function fitsText(value: (row: number) => Value, { type, filter }: TextFilterModel): Fits {
  const sought = (filter ?? '').toLowerCase();
  const tests: Readonly<Record<string, (text: string) => boolean>> = {
    contains: (text) => text.includes(sought),
    notContains: (text) => !text.includes(sought),
    equals: (text) => text === sought,
    notEqual: (text) => text !== sought,
    startsWith: (text) => text.startsWith(sought),
    endsWith: (text) => text.endsWith(sought),
  };
  const test = tests[type ?? ''];
  return test ? (row) => test(String(value(row)).toLowerCase()) : () => true;
}
