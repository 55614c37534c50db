/**
 * Adjusted Rand index of two groupings of the same items: 1 when they agree wholly, about 0 when they agree as much as
 * chance would, below 0 when less. Hubert & Arabie (1985), J. Classification 2.
 * Throws a RangeError when the groupings differ in length.
 */
export function adjustedRand(a: ArrayLike<number>, b: ArrayLike<number>): number {
  if (a.length !== b.length) throw new RangeError(`The groupings have ${a.length} and ${b.length} items.`);
  const cell = new Map<string, number>();
  const rowSum = new Map<number, number>();
  const columnSum = new Map<number, number>();
  const add = <K>(map: Map<K, number>, key: K): void => void map.set(key, (map.get(key) ?? 0) + 1);
  for (let i = 0; i < a.length; i++) {
    add(cell, `${a[i]} ${b[i]}`);
    add(rowSum, a[i]);
    add(columnSum, b[i]);
  }
  const pairs = (counts: Iterable<number>): number => {
    let sum = 0;
    for (const count of counts) sum += (count * (count - 1)) / 2;
    return sum;
  };
  const both = pairs(cell.values());
  const rows = pairs(rowSum.values());
  const columns = pairs(columnSum.values());
  const expected = (rows * columns) / ((a.length * (a.length - 1)) / 2);
  const most = (rows + columns) / 2;
  return most === expected ? 1 : (both - expected) / (most - expected);
}
