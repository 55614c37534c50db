import type { Thinned } from '@pebble/contract';
import { counted, formatCount } from '../../words/sentence';
import type { Woven } from './woven';

/**
 * Ties that stand out for one of their ends: those with (1 - w / s)^(k - 1) below alpha, for an end of strength s with k ties, where the
 * ends of a directed tie are counted by their outgoing and incoming ties (Serrano, Boguñá & Vespignani 2009, PNAS 106). An end with one
 * tie says nothing. Self-ties do not count, and stay.
 * @param alpha level of significance, above 0 and up to 1
 */
export function disparity(
  { source, target, weight, id, directed }: Pick<Woven, 'source' | 'target' | 'weight' | 'id' | 'directed'>,
  alpha: number,
): Uint32Array {
  const nodes = id.length;
  const out = { ties: new Float64Array(nodes), strength: new Float64Array(nodes) };
  // Of an undirected network both ends are counted together.
  const into = directed ? { ties: new Float64Array(nodes), strength: new Float64Array(nodes) } : out;
  for (let e = 0; e < source.length; e++) {
    if (source[e] === target[e]) continue;
    out.ties[source[e]]++;
    out.strength[source[e]] += weight[e];
    into.ties[target[e]]++;
    into.strength[target[e]] += weight[e];
  }
  const chance = ({ ties, strength }: typeof out, node: number, w: number): number =>
    ties[node] < 2 ? 1 : (1 - w / strength[node]) ** (ties[node] - 1);
  return Uint32Array.from(source.keys()).filter(
    (e) =>
      source[e] === target[e] ||
      Math.min(chance(out, source[e], weight[e]), chance(into, target[e], weight[e])) < alpha,
  );
}

/**
 * What a backbone keeps, beside the plain threshold of the weight that keeps about as many ties. Self-ties do not count.
 * @param kept places of the backbone's ties
 */
export function besidePlain(
  { source, target, weight }: Pick<Woven, 'source' | 'target' | 'weight'>,
  kept: Uint32Array,
): Thinned {
  const isTie = (e: number): boolean => source[e] !== target[e];
  const all = Uint32Array.from(source.keys()).filter(isTie);
  const backbone = kept.filter(isTie);
  const atLeast = thresholdFor(
    Float64Array.from(all, (e) => weight[e]),
    backbone.length,
  );
  const plain = all.filter((e) => weight[e] >= atLeast);
  const sum = (ties: Uint32Array): number => ties.reduce((total, e) => total + weight[e], 0);
  const total = sum(all);
  const tell = (ties: Uint32Array) => ({
    ties: ties.length,
    nodes: new Set([...ties].flatMap((e) => [source[e], target[e]])).size,
    weight: total > 0 ? sum(ties) / total : 0,
  });
  return {
    of: all.length,
    backbone: tell(backbone),
    plain: { atLeast, ...tell(plain) },
    both: backbone.reduce((count, e) => count + (weight[e] >= atLeast ? 1 : 0), 0),
  };
}

/** The weight that a number of ties nearest to the wanted one has at least; of two that are as near the higher one. */
function thresholdFor(weights: Float64Array, wanted: number): number {
  const falling = weights.slice().sort().reverse();
  let best = { weight: falling[0] ?? 0, off: Infinity };
  for (let i = 0; i < falling.length; i++) {
    if (falling[i] === falling[i + 1]) continue;
    const off = Math.abs(i + 1 - wanted);
    if (off < best.off) best = { weight: falling[i], off };
  }
  return best.weight;
}

/** "The disparity filter at 0.05 (Serrano et al. 2009) keeps 90 of 400 ties. …" */
export function thinnedPhrase({ of, backbone, plain, both }: Thinned, level: number): string {
  const least = Number.isInteger(plain.atLeast) ? formatCount(plain.atLeast) : plain.atLeast.toPrecision(3);
  return (
    `The disparity filter at ${level} (Serrano et al. 2009) keeps ${formatCount(backbone.ties)} of ${counted(of, 'tie')}; ` +
    `a plain threshold of ${least} would keep ${formatCount(plain.ties)}, ${formatCount(both)} of them the same.`
  );
}
