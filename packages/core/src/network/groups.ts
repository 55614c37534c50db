import { NodePlaces } from './nodePlaces';

/** A group for a node, as a row of a file says it; node is null in a plain list in the network's order. */
export interface GroupRow {
  readonly row: number;
  readonly node: string | null;
  readonly group: string;
}

/** Either one group for each node, or how the file differs from the network. */
export type MatchedGroups =
  | { readonly values: readonly string[]; readonly groups: number; readonly note: string | null }
  | { readonly difference: string };

const SHOWN = 5;

/**
 * Gives every node of a network its group. There must be exactly one value for each node; otherwise the difference is told.
 * @param handles names by which the nodes are known, in the network's order
 * @param names labels of the nodes; they are tried where a handle does not fit
 */
export function matchGroups(
  handles: readonly string[],
  names: readonly string[],
  rows: readonly GroupRow[],
): MatchedGroups {
  if (rows.length > 0 && rows.every(({ node }) => node === null)) return matchList(handles, rows);
  const places = new NodePlaces(handles, names);
  const values = new Array<string | null>(handles.length).fill(null);
  const unknown: string[] = [];
  const twice: string[] = [];
  for (const { node, group } of rows) {
    const at = places.of(node ?? '');
    if (at === undefined) unknown.push(node ?? '');
    else if (values[at] !== null && values[at] !== group) twice.push(node ?? '');
    else values[at] = group;
  }
  const without = handles.filter((_, i) => values[i] === null || values[i] === '');
  const parts = [
    part(without, 'node has no group', 'nodes have no group'),
    part(unknown, 'name of the file is not in the network', 'names of the file are not in the network'),
    part(twice, 'node has two groups', 'nodes have two groups'),
  ].filter((text) => text !== '');
  if (parts.length > 0) return { difference: parts.join('; ') };
  return found(values as string[]);
}

function matchList(handles: readonly string[], rows: readonly GroupRow[]): MatchedGroups {
  const values = rows.map(({ group }) => group);
  if (values.length === handles.length) return found(values);
  if (values.length === handles.length + 1)
    return { ...found(values.slice(1)), note: `The first line, “${values[0]}”, was taken as a heading.` };
  return {
    difference: `the list has ${values.length} values and the network has ${handles.length} nodes`,
  };
}

function found(values: readonly string[]): Extract<MatchedGroups, { values: unknown }> {
  return { values, groups: new Set(values).size, note: null };
}

function part(names: readonly string[], singular: string, plural: string): string {
  if (names.length === 0) return '';
  const shown = names.slice(0, SHOWN).join(', ');
  return `${names.length} ${names.length === 1 ? singular : plural} (${shown}${names.length > SHOWN ? ', …' : ''})`;
}
