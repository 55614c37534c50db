const NUMBER = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;

/** What a file, or the researcher, says a column is. */
export type ColumnType = 'number' | 'text';

/**
 * A column as numbers, empty cells as NaN. Where nothing is said of it, it is one only if every value, written back, is the same: "007",
 * "+49301234" and "1.10" are codes, and would lose their writing and be taken for each other. (Whole numbers that a table holds as "12.0" are
 * numbers, unless it holds "12" too.) A column that is said to hold numbers does so where all can be held exactly; one of text never.
 */
export function typedColumn(column: string[], said: ColumnType | null = null): Float64Array | string[] {
  const given = column.filter((value) => value !== '');
  if (given.length === 0 || said === 'text') return column;
  if (said === 'number' ? !given.every(isHeldExactly) : !areWrittenBack(given)) return column;
  return Float64Array.from(column, (value) => (value === '' ? NaN : Number(value)));
}

/** Whether a text is a number that is not cut when it is held: a finite one, and whole ones up to 2^53. */
export function isHeldExactly(value: string): boolean {
  return (
    NUMBER.test(value) && Number.isFinite(Number(value)) && Math.abs(Number(value)) <= Number.MAX_SAFE_INTEGER
  );
}

/** Whether each value, written back, is the same, and no two writings are one number. */
export function areWrittenBack(given: readonly string[]): boolean {
  const isSame = (value: string): boolean => isHeldExactly(value) && String(Number(value)) === value;
  if (given.every(isSame)) return true;
  return (
    given.every((value) => value.endsWith('.0') || value.includes('.')) &&
    given.every((value) => isSame(value.replace(/\.0$/, '')))
  );
}

/** Whether texts are those of a category: few different ones, each for many nodes. */
export function looksLikeCategory(values: readonly string[]): boolean {
  return new Set(values).size <= Math.min(40, values.length / 3);
}
