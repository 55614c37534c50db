import type { Random } from '../random';
import { renumber, type Level } from './level';

const MOST_SWEEPS = 100;

/**
 * One run of label propagation (Raghavan, Albert & Kumara 2007, Phys. Rev. E 76): nodes, in random order, take the label that weighs
 * most among their neighbours, chance deciding between equals, until every node has such a label.
 */
export function labelRun({ rows }: Level, chance: Random): { group: Uint32Array; converged: boolean } {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const label = Uint32Array.from({ length: n }, (_, v) => v);
  const order = Uint32Array.from({ length: n }, (_, v) => v);
  const sum = new Float64Array(n);
  const touched = new Uint32Array(n);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let changed = 0;
    for (const v of chance.shuffle(order)) {
      let count = 0;
      let most = 0;
      for (let i = offset[v]; i < offset[v + 1]; i++) {
        if (neighbour[i] === v) continue;
        const l = label[neighbour[i]];
        if (sum[l] === 0) touched[count++] = l;
        sum[l] += weight[i];
        if (sum[l] > most) most = sum[l];
      }
      if (count > 0 && sum[label[v]] < most) {
        changed++;
        let equals = 0;
        let chosen = label[v];
        for (let t = 0; t < count; t++)
          if (sum[touched[t]] === most && chance.below(++equals) === 0) chosen = touched[t];
        label[v] = chosen;
      }
      for (let t = 0; t < count; t++) sum[touched[t]] = 0;
    }
    if (changed === 0) return { group: renumber(label).group, converged: true };
  }
  return { group: renumber(label).group, converged: false };
}
