import type { ColourGroup } from '../../style/colours';

/** Nodes that are named beside the first in rank, and the words for them. */
export interface AlsoNamed {
  readonly nodes: readonly number[];
  /** "the largest of each group"; empty where there are none. */
  readonly phrase: string;
}

/**
 * A reader asks first what the largest node is, and who stands for a group in the legend: these are named whatever their rank. Only those
 * that are not among the first in rank anyhow.
 * @param inRank nodes that may be named, by rank
 * @param count so many of these are named
 * @param size the number by which nodes are large, by node
 * @param colour of each node, an index of `colours`
 */
export function alsoNamed(
  inRank: Uint32Array,
  count: number,
  size: ArrayLike<number>,
  {
    groups,
    colour,
    colours,
  }: { groups: readonly ColourGroup[]; colour: Uint8Array; colours: readonly string[] },
): AlsoNamed {
  if (count === 0) return { nodes: [], phrase: '' };
  const isNamed = new Set(inRank.subarray(0, count));
  const named = new Set(groups.filter(({ value }) => value !== -1).map((group) => group.colour));
  const ofGroup = new Map<string, number>();
  let largest = -1;
  let isAlone = true;
  for (const v of inRank.slice().sort()) {
    if (largest < 0 || size[v] > size[largest]) [largest, isAlone] = [v, true];
    else if (size[v] === size[largest]) isAlone = false;
    const group = colours[colour[v]];
    const before = ofGroup.get(group);
    if (named.has(group) && (before === undefined || size[v] > size[before])) ofGroup.set(group, v);
  }
  const leaders = [...ofGroup.values()];
  const isApart = isAlone && largest >= 0 && !leaders.includes(largest) && !isNamed.has(largest);
  const others = leaders.filter((v) => !isNamed.has(v));
  const nodes = [...(isApart ? [largest] : []), ...others.sort((a, b) => size[b] - size[a] || a - b)];
  return { nodes, phrase: phraseOf(isApart, others.length > 0) };
}

function phraseOf(isLargest: boolean, areOfGroups: boolean): string {
  if (isLargest) return areOfGroups ? 'the largest of all and of each group' : 'the largest';
  return areOfGroups ? 'the largest of each group' : '';
}
