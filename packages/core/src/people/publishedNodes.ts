import type { TableColumns } from '../network/tables';

/** What the nodes of a network are called in what is published; null for those that are called as they are. */
export type PublishedNames = readonly (string | null)[];

/** Columns that say who somebody is. */
const IDENTIFYING = ['location', 'joined', 'description'];

/**
 * Columns of nodes that are left out beside pseudonyms: where somebody is, since when, and all free texts.
 * @param own those that did not come of computing
 * @param chosen that go out nevertheless
 */
export function leftOutColumns(
  nodes: TableColumns,
  own: readonly { readonly name: string; readonly type: string }[],
  chosen: readonly string[],
): string[] {
  const texts = own.filter(({ type }) => type === 'text').map(({ name }) => name);
  return [...new Set([...IDENTIFYING, ...texts])].filter((name) => name in nodes && !chosen.includes(name));
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
