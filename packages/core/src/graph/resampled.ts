import { Random } from '../random';
import type { Graph } from './graph';

/**
 * The same graph as if its messages had been drawn anew from those that there are: the weight of a tie becomes a Poisson number with that
 * mean, which is what drawing as many messages again gives where each tie holds few of all (bootstrap; common practice). Ties that get none
 * are left out.
 */
export function resampled({ nodeCount, source, target, weight }: Graph, chance: Random): Graph {
  const drawn = weight.map((mean) => poisson(mean, chance));
  const kept = Uint32Array.from(drawn.keys()).filter((e) => drawn[e] > 0);
  return {
    nodeCount,
    source: Uint32Array.from(kept, (e) => source[e]),
    target: Uint32Array.from(kept, (e) => target[e]),
    weight: Float64Array.from(kept, (e) => drawn[e]),
  };
}

/** A Poisson number: by products of chances (Knuth, The Art of Computer Programming 2, 3.4.1), for large means in parts of it. */
export function poisson(mean: number, chance: Random): number {
  let count = 0;
  for (let left = mean; left > 0; left -= 30) {
    const limit = Math.exp(-Math.min(left, 30));
    for (let product = chance.real(); product > limit; product *= chance.real()) count++;
  }
  return count;
}
