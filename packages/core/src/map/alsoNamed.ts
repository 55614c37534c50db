import type { ColourGroup } from './colours';

/** Nodes that are named beside the first in rank, and the words for them. */
export interface AlsoNamed {
  readonly nodes: readonly number[];
  /** "the largest and the first of each group"; empty where there are none. */
  readonly phrase: string;
}

/**
 * A reader asks first what the largest node is, and who stands for a group: these are named whatever their rank. Only those that are
 * not among the first in rank anyhow.
 * @param inRank nodes that may be named, by rank
 * @param count so many of these are named
 * @param colour of each node, an index of `colours`
 */
export function alsoNamed(
  inRank: Uint32Array,
  count: number,
  radius: ArrayLike<number>,
  {
    groups,
    colour,
    colours,
  }: { groups: readonly ColourGroup[]; colour: Uint8Array; colours: readonly string[] },
): AlsoNamed {
  if (count === 0 || inRank.length === 0) return { nodes: [], phrase: '' };
  const isNamed = new Set(inRank.subarray(0, count));
  const [largest, next] = twoLargest(inRank, radius);
  const isLargest = radius[largest] > radius[next] && !isNamed.has(largest);
  const nodes = isLargest ? [largest] : [];
  const wanted = new Set(groups.filter(({ value }) => value !== -1).map((group) => group.colour));
  for (const v of inRank) {
    if (wanted.size === 0) break;
    // The first of a group stands for it, be it named already or not.
    if (wanted.delete(colours[colour[v]]) && !isNamed.has(v) && v !== nodes[0]) nodes.push(v);
  }
  const isOfGroups = nodes.length > (isLargest ? 1 : 0);
  const parts = [...(isLargest ? ['the largest'] : []), ...(isOfGroups ? ['the first of each group'] : [])];
  return { nodes, phrase: parts.join(' and ') };
}

function twoLargest(nodes: Uint32Array, radius: ArrayLike<number>): [number, number] {
  let [first, second] = [nodes[0], nodes[nodes.length > 1 ? 1 : 0]];
  if (radius[second] > radius[first]) [first, second] = [second, first];
  for (const v of nodes.subarray(2)) {
    if (radius[v] > radius[first]) [first, second] = [v, first];
    else if (radius[v] > radius[second]) second = v;
  }
  return [first, second];
}
