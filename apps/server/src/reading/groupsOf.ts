import { createHash } from 'node:crypto';
import { groupCodes, isNumbered, type GroupCodes, type TableColumns } from '@pebble/core';

/** The groups of a column that are told of: the largest first, none for nodes without a group. */
export interface ToldGroups {
  readonly names: readonly string[];
  /** Of each node; the number of names for all others. */
  readonly of: Uint32Array;
  /** Groups that are not told of, with their nodes; nodes without a group are none. */
  readonly further: { readonly groups: number; readonly nodes: number };
}

export function toldGroups(column: TableColumns[string], most: number): ToldGroups {
  const codes = groupCodes(column);
  const place = new Map<number, number>();
  codes.names.forEach((name, g) => {
    // A node that was found to be in no group with others is no group to be told of; one that somebody named is.
    const isGroup = name !== '' && (codes.size[g] > 1 || !isNumbered(name));
    if (isGroup && place.size < most) place.set(g, place.size);
  });
  const count = place.size;
  return {
    names: [...place.keys()].map((g) => codes.names[g]),
    of: codes.of.map((g) => place.get(g) ?? count),
    further: furtherIn(codes, place),
  };
}

function furtherIn({ names, size }: GroupCodes, told: ReadonlyMap<number, number>): ToldGroups['further'] {
  const others = names.map((_, g) => g).filter((g) => names[g] !== '' && !told.has(g));
  return { groups: others.length, nodes: others.reduce((sum, g) => sum + size[g], 0) };
}

/** A hash that is another one as soon as any node is in another group. */
export function groupsHash(column: TableColumns[string]): string {
  const hash = createHash('sha256');
  for (const value of column) hash.update(`${value}\0`);
  return hash.digest('hex');
}
