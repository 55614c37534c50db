import { THROUGH_TIME, type FollowedNodes, type FollowedNodesQuery, type Following } from '@pebble/contract';
import { nodeLabels, numbersOf } from '@pebble/core';
import { findFollowing } from '../storage/following';
import { readTable } from '../storage/files/tables';
import { slicesOfNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { nodeKeys } from './nodeKeys';
import { sliceGroupsHash } from './sliceGroups';

/** How the groups of a network's slices go on; null where they were not followed. */
export async function readFollowing(store: Store, network: string): Promise<Following | null> {
  const found = await findFollowing(store, network);
  if (!found) return null;
  const { following, drawnFrom } = found;
  const slices = await slicesOfNetwork(store, network);
  const isSame = drawnFrom === sliceGroupsHash(store, slices, following.column);
  return {
    ...following,
    outOfDate: isSame ? '' : 'Since groups were followed, the groups of the slices are others.',
  };
}

/** Nodes of a line in a slice, those with most ties first. */
export async function readFollowedNodes(
  store: Store,
  { network, query }: { readonly network: string; readonly query: FollowedNodesQuery },
): Promise<FollowedNodes> {
  const { slice, line, to, gone, offset, limit } = query;
  // As they were followed: slices that came or went since would move the places of the others.
  const slices = (await findFollowing(store, network))?.following.slices.map((one) => one.network) ?? [];
  if (slice >= slices.length) return { total: 0, offset, nodes: [] };
  const nodes = readTable(store.folder, slices[slice], 'nodes');
  const lines = THROUGH_TIME in nodes ? nodes[THROUGH_TIME] : [];
  const isWanted = to === undefined && gone === 'false' ? () => true : inNextSlice(store, slices, query);
  const keys = nodeKeys(store, slices[slice]);
  const strength = 'strength' in nodes ? numbersOf(nodes, 'strength') : new Float64Array(keys.length);
  const found = keys
    .flatMap((key, v) => (String(lines[v]) === line && isWanted(key) ? [v] : []))
    .sort((a, b) => strength[b] - strength[a] || a - b);
  const labels = nodeLabels(nodes);
  return {
    total: found.length,
    offset,
    nodes: found
      .slice(offset, offset + limit)
      .map((node) => ({ node, label: labels[node], strength: strength[node] })),
  };
}

/** Whether a node is in the next slice as it is asked: in a line, or not at all. */
function inNextSlice(
  store: Store,
  slices: readonly string[],
  { slice, to, gone }: FollowedNodesQuery,
): (key: string) => boolean {
  if (slice + 1 >= slices.length) return () => false;
  const next = slices[slice + 1];
  const nodes = readTable(store.folder, next, 'nodes', [THROUGH_TIME]);
  const lines = THROUGH_TIME in nodes ? nodes[THROUGH_TIME] : [];
  const there = new Map(nodeKeys(store, next).map((key, v) => [key, String(lines[v])]));
  return gone === 'true' ? (key) => !there.has(key) : (key) => there.get(key) === to;
}
