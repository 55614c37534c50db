import type { Random } from '../random';
import { contract, type Level } from './level';
import { moveNodes } from './moveNodes';

/** One run of the Louvain method (Blondel et al. 2008, J. Stat. Mech. P10008): nodes are moved, communities become nodes, and again. */
export function louvainRun(first: Level, resolution: number, chance: Random): Uint32Array {
  let level = first;
  const of = Uint32Array.from({ length: first.rows.nodeCount }, (_, v) => v);
  for (;;) {
    const { group, count, moved } = moveNodes(level, resolution, chance);
    for (let v = 0; v < of.length; v++) of[v] = group[of[v]];
    if (!moved || count === level.rows.nodeCount) return of;
    level = contract(level, group, count);
  }
}
