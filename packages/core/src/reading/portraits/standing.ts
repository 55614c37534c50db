import type { GroupTie, StandingNode } from '@pebble/contract';
import type { Graph } from '../../graph/graph';

/** Nodes of each list. */
const MOST = 8;
/** Nodes that are named for what leads to another group. */
const MOST_BY = 3;

/** Who a group is, and what ties it to the rest of the network. */
export interface Standing {
  readonly nodes: number;
  /** Nodes of the group with the most weight of ties that come in; without direction of all ties. */
  readonly addressed: StandingNode[];
  /** With the most weight of ties that go out; empty without direction. */
  readonly addressing: StandingNode[];
  /** With the most weight of ties to and from other groups. */
  readonly waysOut: StandingNode[];
  /** Nodes of other groups that are tied to most nodes of this one. */
  readonly outside: StandingNode[];
  /** Weight of ties between nodes of the group, that goes out of it, and that comes in; without direction all that leaves stands in `out`. */
  readonly within: number;
  readonly out: number;
  readonly into: number;
  /** Other groups, those with most weight between first. */
  readonly ties: GroupTie[];
}

/**
 * Who stands how in each group. Self-ties do not count.
 * @param group of each node; nodes with a number from `groups` on belong to none that is told of
 */
export function standingIn(
  { nodeCount, source, target, weight }: Graph,
  group: ArrayLike<number>,
  groups: number,
  directed: boolean,
): Standing[] {
  const [into, out, across] = [
    new Float64Array(nodeCount),
    new Float64Array(nodeCount),
    new Float64Array(nodeCount),
  ];
  const between = new Map<number, Between>();
  const [within, leaving, coming] = [
    new Float64Array(groups),
    new Float64Array(groups),
    new Float64Array(groups),
  ];
  const tiedTo = Array.from({ length: groups }, () => new Map<number, Set<number>>());
  const all = groups + 1;
  const pass = (a: number, b: number, from: number, to: number, w: number): void => {
    const key = from * all + to;
    let one = between.get(key);
    if (!one) between.set(key, (one = { weight: 0, ties: 0, sources: new Map(), targets: new Map() }));
    one.weight += w;
    one.ties++;
    one.sources.set(a, (one.sources.get(a) ?? 0) + w);
    one.targets.set(b, (one.targets.get(b) ?? 0) + w);
  };
  const touch = (g: number, outsider: number, member: number): void => {
    if (g >= groups) return;
    const members = tiedTo[g].get(outsider);
    if (members) members.add(member);
    else tiedTo[g].set(outsider, new Set([member]));
  };
  for (let e = 0; e < source.length; e++) {
    const [a, b, w] = [source[e], target[e], weight[e]];
    if (a === b) continue;
    const [from, to] = [Math.min(group[a], groups), Math.min(group[b], groups)];
    out[a] += w;
    into[b] += w;
    if (from === to && from < groups) {
      within[from] += w;
      continue;
    }
    across[a] += w;
    across[b] += w;
    if (from < groups) leaving[from] += w;
    if (to < groups) coming[to] += w;
    pass(a, b, from, to, w);
    touch(to, a, b);
    touch(from, b, a);
  }
  const members = Array.from({ length: groups }, (): number[] => []);
  for (let v = 0; v < nodeCount; v++) if (group[v] < groups) members[group[v]].push(v);
  const tied = directed ? into : into.map((value, v) => value + out[v]);
  const first = (nodes: readonly number[], value: (v: number) => number): StandingNode[] =>
    nodes
      .filter((v) => value(v) > 0)
      .sort((a, b) => value(b) - value(a) || a - b)
      .slice(0, MOST)
      .map((node) => ({ node, value: value(node) }));
  const towards = (g: number): GroupTie[] => {
    const found: GroupTie[] = [];
    for (let other = 0; other < all; other++) {
      if (other === g) continue;
      const [there, back] = [between.get(g * all + other), between.get(other * all + g)];
      if (!there && !back) continue;
      const [out, into] = [there?.weight ?? 0, back?.weight ?? 0];
      found.push({
        group: other < groups ? other : null,
        out: directed ? out : out + into,
        into: directed ? into : 0,
        ties: (there?.ties ?? 0) + (back?.ties ?? 0),
        by: leaders(there?.sources, back?.targets),
      });
    }
    return found.sort((x, y) => y.out + y.into - (x.out + x.into));
  };
  return members.map((own, g) => ({
    nodes: own.length,
    addressed: first(own, (v) => tied[v]),
    addressing: directed ? first(own, (v) => out[v]) : [],
    waysOut: first(own, (v) => across[v]),
    outside: first([...tiedTo[g].keys()], (v) => tiedTo[g].get(v)!.size),
    within: within[g],
    out: directed ? leaving[g] : leaving[g] + coming[g],
    into: directed ? coming[g] : 0,
    ties: towards(g),
  }));
}

/** What leads from one group to another: weight, ties, and what each of their ends carries of it. */
interface Between {
  weight: number;
  ties: number;
  readonly sources: Map<number, number>;
  readonly targets: Map<number, number>;
}

/** The nodes of a group that carry most of what leads to and from another one. */
function leaders(...carried: readonly (ReadonlyMap<number, number> | undefined)[]): number[] {
  const sum = new Map<number, number>();
  for (const part of carried)
    for (const [node, weight] of part ?? []) sum.set(node, (sum.get(node) ?? 0) + weight);
  return [...sum]
    .sort(([a, x], [b, y]) => y - x || a - b)
    .slice(0, MOST_BY)
    .map(([node]) => node);
}
