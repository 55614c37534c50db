const NUMBER = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;

/** A column as numbers when all that is written in it are numbers that can be held exactly; empty cells become NaN. */
export function typedColumn(column: string[]): Float64Array | string[] {
  const given = column.filter((value) => value !== '');
  const isExact = (value: string): boolean =>
    NUMBER.test(value) && (/[.eE]/.test(value) || Number.isSafeInteger(Number(value)));
  if (given.length === 0 || !given.every(isExact)) return column;
  return Float64Array.from(column, (value) => (value === '' ? NaN : Number(value)));
}

/** Whether texts are those of a category: few different ones, each for many nodes. */
export function looksLikeCategory(values: readonly string[]): boolean {
  return new Set(values).size <= Math.min(40, values.length / 3);
}
