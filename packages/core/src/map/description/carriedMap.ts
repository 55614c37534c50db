import type { Condition, MapDescription, NodeFilter, Note } from '@pebble/contract';
import { TAKEN_OUT } from '../../network/changes';

/**
 * What a map says, for a network whose nodes have new numbers: held nodes, names that were moved, outlines, notes and conditions go along;
 * what speaks only of nodes that are no longer there goes.
 * @param became the new number of each node, or TAKEN_OUT
 */
export function carriedMap(map: MapDescription, became: Uint32Array): MapDescription {
  const nodes = (before: readonly number[]): number[] => [
    ...new Set(before.map((v) => became[v] ?? TAKEN_OUT).filter((v) => v !== TAKEN_OUT)),
  ];
  const isThere = (v: number): boolean => nodes([v]).length === 1;
  const condition = (one: Condition): Condition =>
    'nodes' in one ? { ...one, nodes: nodes(one.nodes) } : one;
  const filter = ({ joined, conditions }: NodeFilter): NodeFilter => ({
    joined,
    conditions: conditions.map(condition).filter((one) => !('nodes' in one) || one.nodes.length > 0),
  });
  return {
    ...map,
    held: nodes(map.held),
    names: {
      ...map.names,
      where: filter(map.names.where),
      placed: map.names.placed
        .filter(({ node }) => isThere(node))
        .map((one) => ({ ...one, node: became[one.node] })),
    },
    regions: {
      ...map.regions,
      own: map.regions.own
        .map((one) => ({ ...one, nodes: nodes(one.nodes) }))
        .filter((one) => one.nodes.length > 0),
      strokes: map.regions.strokes
        .map((one) => ({
          ...one,
          points: one.points
            .filter(({ near }) => isThere(near))
            .map((at) => ({ ...at, near: became[at.near] })),
        }))
        .filter((one) => one.points.length > 0),
    },
    notes: map.notes.flatMap((note) => carriedNote(note, became)),
    // Communities are found anew, and have other numbers.
    show: { ...map.show, communities: null, where: filter(map.show.where) },
  };
}

/** The note at its new place; none where that is gone, or where both ends of its tie became one node. */
function carriedNote({ at, ...note }: Note, became: Uint32Array): Note[] {
  const now = (node: number): number => became[node] ?? TAKEN_OUT;
  if (at.what === 'node') {
    const node = now(at.node);
    return node === TAKEN_OUT ? [] : [{ ...note, at: { ...at, node } }];
  }
  const [source, target] = [now(at.source), now(at.target)];
  const isGone = source === TAKEN_OUT || target === TAKEN_OUT || source === target;
  return isGone ? [] : [{ ...note, at: { ...at, source, target } }];
}
