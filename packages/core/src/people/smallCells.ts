import { textsIn, type TableColumns } from '../network/tables';

/** Combinations of what tells of people that few of them share, so that these can be known by it. */
export interface SmallCells {
  readonly columns: readonly string[];
  readonly combinations: number;
  readonly people: number;
}

/**
 * Counts the combinations of values that fewer people share than `least`. Who has no value in any of the columns is left aside.
 * @param people the nodes that are people, by their places
 */
export function smallCells(
  nodes: TableColumns,
  columns: readonly string[],
  people: readonly number[],
  least: number,
): SmallCells {
  const values = columns.map((name) => textsIn(nodes[name]).map((text) => (text === 'NaN' ? '' : text)));
  const count = new Map<string, number>();
  for (const v of people) {
    const told = values.map((column) => column[v]);
    if (told.every((value) => value === '')) continue;
    const key = JSON.stringify(told);
    count.set(key, (count.get(key) ?? 0) + 1);
  }
  const small = [...count.values()].filter((shared) => shared < least);
  return { columns, combinations: small.length, people: small.reduce((sum, shared) => sum + shared, 0) };
}
