import type { ColourGroup } from '../../style/colours';

/** Nodes that are named beside the first in rank, and the words for them. */
export interface AlsoNamed {
  readonly nodes: readonly number[];
  /** "the two largest of each group"; empty where there are none. */
  readonly phrase: string;
}

/**
 * A reader asks first what the largest node is, and who stands for a group in the legend: its two largest nodes, so that one name is not taken for
 * all of it. These are named whatever their rank. Only those
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
  /** The largest two, by the colour of the group. */
  const ofGroup = new Map<string, number[]>();
  let largest = -1;
  let isAlone = true;
  for (const v of inRank.slice().sort()) {
    if (largest < 0 || size[v] > size[largest]) [largest, isAlone] = [v, true];
    else if (size[v] === size[largest]) isAlone = false;
    const group = colours[colour[v]];
    if (!named.has(group)) continue;
    const [first, second] = ofGroup.get(group) ?? [];
    if (first === undefined || size[v] > size[first])
      ofGroup.set(group, first === undefined ? [v] : [v, first]);
    else if (second === undefined || size[v] > size[second]) ofGroup.set(group, [first, v]);
  }
  const leaders = [...ofGroup.values()];
  const isApart = isAlone && largest >= 0 && !leaders.flat().includes(largest) && !isNamed.has(largest);
  // The largest of each group get their places before the second ones.
  const others = [0, 1].flatMap((place) =>
    leaders
      .flatMap((two) => two[place] ?? [])
      .filter((v) => !isNamed.has(v))
      .sort((a, b) => size[b] - size[a] || a - b),
  );
  return { nodes: [...(isApart ? [largest] : []), ...others], phrase: phraseOf(isApart, others.length > 0) };
}

function phraseOf(isLargest: boolean, areOfGroups: boolean): string {
  if (isLargest) return areOfGroups ? 'the largest of all and two of each group' : 'the largest';
  return areOfGroups ? 'the two largest of each group' : '';
}
