import type { ColumnInfo, Naming, TitlesByColumn } from '@pebble/contract';
import { isTakenColumn } from '../measures/columns';
import type { TableColumns } from '../network/tables';

/** What the nodes of a network are called in what is published; null for those that are called as they are. */
export type PublishedNames = readonly (string | null)[];

/** Columns that say who somebody is. */
const IDENTIFYING = ['location', 'joined', 'description'];

/** A column that did not come of computing alone. */
type Column = Pick<ColumnInfo, 'name' | 'type'>;

/** Columns that tell of people: what profiles, tables and hands say of them. */
export function tellingColumns(nodes: TableColumns, columns: readonly Column[]): string[] {
  const own = columns.filter(({ name, type }) => type !== 'number' && !isTakenColumn(name));
  return [...new Set([...IDENTIFYING, ...own.map(({ name }) => name)])].filter((name) => name in nodes);
}

/**
 * Columns of nodes that are left out beside pseudonyms: where somebody is, since when, all free texts, and what was chosen.
 * @param choice which of them go out nevertheless, and which others do not
 */
export function leftOutColumns(
  nodes: TableColumns,
  columns: readonly Column[],
  choice: Pick<Naming, 'details' | 'without'>,
): string[] {
  const texts = columns.filter(({ type }) => type === 'text').map(({ name }) => name);
  const usual = new Set([...IDENTIFYING, ...texts]);
  return tellingColumns(nodes, columns).filter(
    (name) => choice.without.includes(name) || (usual.has(name) && !choice.details.includes(name)),
  );
}

/** A title that suggested itself by the node that leads a group. */
const ROUND = /^round (.+?)( \(\d+\))?$/s;

/** The titles of groups as they are published: a group that is called by a node is called by its pseudonym. */
export function publishedTitles(
  titles: TitlesByColumn,
  labels: readonly string[],
  names: PublishedNames,
): TitlesByColumn {
  let nodes: ReadonlyMap<string, number> | null = null;
  const called = (title: string): string => {
    const [, leader, behind = ''] = ROUND.exec(title) ?? [];
    if (leader === undefined) return title;
    nodes ??= new Map(labels.map((label, v) => [label, v]));
    const name = names[nodes.get(leader) ?? -1] ?? null;
    return name === null ? title : `round ${name}${behind}`;
  };
  return Object.fromEntries(
    Object.entries(titles).map(([column, byValue]) => [
      column,
      Object.fromEntries(Object.entries(byValue).map(([value, title]) => [value, called(title)])),
    ]),
  );
}

/** The nodes as they are published: pseudonyms as handles, without names beside them and without what is left out. */
export function publishedNodes(
  nodes: TableColumns,
  names: PublishedNames,
  leftOut: readonly string[],
): TableColumns {
  const { id: _, handle, name, ...more } = nodes;
  const kept = Object.entries(more).filter(([column]) => !leftOut.includes(column));
  return {
    // Numbers by which the study knows accounts would tie this file to others.
    id: Uint32Array.from(names, (_, v) => v + 1),
    handle: names.map((one, v) => one ?? (handle as readonly string[])[v]),
    name: names.map((one, v) => (one === null ? (name as readonly string[])[v] : '')),
    ...Object.fromEntries(kept),
  };
}
