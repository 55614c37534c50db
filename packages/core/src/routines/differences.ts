import type { NetworkDifferences } from '@pebble/contract';
import { adjustedRand } from '../communities/agreement';
import { endPhrase, happeningPhrase } from '../reading/change/happeningPhrase';
import { followGroups } from '../reading/change/followGroups';
import type { SliceGroups } from '../reading/change/overlaps';

/** A network as it is compared: its nodes are known by keys that are the same in both. */
export interface ComparedNetwork {
  readonly network: string;
  readonly keys: readonly string[];
  readonly names: readonly string[];
  readonly edges: number;
  /** The community of each node, from 0 on. */
  readonly group: ArrayLike<number>;
  /** What communities are called; one without a name by its number. */
  readonly titleOf: (group: number) => string;
  /** What was measured of the whole, as networks keep it. */
  readonly measures: Readonly<Record<string, number | string | boolean>>;
  /** By which nodes are ranked. */
  readonly by: string;
  readonly rankedBy: ArrayLike<number>;
}

/** Groups of fewer nodes are not followed, as through time. */
const SETTINGS = { threshold: 0.3, least: 3, patience: 1 };
const FIRST = 10;

/** What is other in a network than in an earlier one of the same kind. */
export function networkDifferences(
  step: string,
  before: ComparedNetwork,
  now: ComparedNetwork,
): NetworkDifferences {
  const was = new Map(before.keys.map((key, node) => [key, node]));
  const is = new Map(now.keys.map((key, node) => [key, node]));
  const common = now.keys.flatMap((key, node) => {
    const earlier = was.get(key);
    return earlier === undefined ? [] : [[earlier, node] as const];
  });
  const ranksBefore = ranksOf(before);
  const ranksNow = ranksOf(now);
  return {
    step,
    before: countsOf(before),
    now: countsOf(now),
    came: firstOf(now, (key) => !was.has(key)),
    gone: firstOf(before, (key) => !is.has(key)),
    measures: measuresOf(before, now),
    agreement:
      common.length === 0
        ? null
        : adjustedRand(
            common.map(([node]) => before.group[node]),
            common.map(([, node]) => now.group[node]),
          ),
    groups: groupsSince(before, now),
    by: now.by,
    ranks: ranksNow.order.slice(0, FIRST).map((node) => {
      const earlier = was.get(now.keys[node]);
      return {
        name: now.names[node],
        now: ranksNow.rank[node],
        before: earlier === undefined ? null : ranksBefore.rank[earlier],
      };
    }),
  };
}

function countsOf({ network, keys, edges, group }: ComparedNetwork): NetworkDifferences['now'] {
  const sizes = new Map<number, number>();
  for (const one of Array.from(group)) sizes.set(one, (sizes.get(one) ?? 0) + 1);
  const groups = [...sizes.values()].filter((size) => size > 1).length;
  return { network, nodes: keys.length, edges, groups };
}

/** What is told of whole networks, by how it is kept. */
const MEASURES: Readonly<Record<string, string>> = {
  components: 'components',
  largestComponent: 'nodes in the largest component',
  isolates: 'nodes without a tie',
  modularity: 'modularity',
};

function measuresOf(before: ComparedNetwork, now: ComparedNetwork): NetworkDifferences['measures'] {
  return Object.entries(MEASURES).flatMap(([name, title]) => {
    const [was, is] = [before.measures[name], now.measures[name]];
    return typeof was === 'number' && typeof is === 'number' ? [{ title, before: was, now: is }] : [];
  });
}

/** Nodes of which something holds: the highest first. */
function firstOf(of: ComparedNetwork, holds: (key: string) => boolean): NetworkDifferences['came'] {
  const nodes = ranksOf(of).order.filter((node) => holds(of.keys[node]));
  return { count: nodes.length, first: nodes.slice(0, FIRST).map((node) => of.names[node]) };
}

/** Nodes in the order of their rank, and the rank of each: those with the same value share one, the best that they could have. */
function ranksOf({ rankedBy, keys }: ComparedNetwork): {
  readonly order: readonly number[];
  readonly rank: Uint32Array;
} {
  const order = keys
    .map((_, node) => node)
    .sort((a, b) => rankedBy[b] - rankedBy[a] || (keys[a] < keys[b] ? -1 : 1));
  const rank = new Uint32Array(keys.length);
  order.forEach((node, place) => {
    const above = order[place - 1];
    rank[node] = place > 0 && rankedBy[above] === rankedBy[node] ? rank[above] : place + 1;
  });
  return { order, rank };
}

/** Groups of both, followed from one to the other as through time. */
function groupsSince(before: ComparedNetwork, now: ComparedNetwork): NetworkDifferences['groups'] {
  const numbers = new Map<string, number>();
  const number = (key: string): number => {
    const known = numbers.get(key) ?? numbers.size;
    numbers.set(key, known);
    return known;
  };
  const slices = [before, now].map(({ keys, group }): SliceGroups => {
    const of = Int32Array.from(group);
    return {
      node: keys.map(number),
      group: of,
      groups: of.reduce((most, one) => Math.max(most, one), -1) + 1,
    };
  });
  const { groups, lines } = followGroups(slices, numbers.size, SETTINGS);
  const titleOf = (line: number): string => {
    const last = groups.findLast((one) => one.line === line)!;
    return (last.slice === 1 ? now : before).titleOf(last.group);
  };
  const later = groups.filter(({ slice }) => slice === 1);
  const gone = groups.filter(({ slice, line }) => slice === 0 && !later.some((one) => one.line === line));
  return [
    ...later.map((one) => ({
      title: titleOf(one.line),
      what: happeningPhrase(one, titleOf, ['node', 'nodes']) || 'is about as large as before',
    })),
    ...gone.map(({ line }) => ({
      title: titleOf(line),
      what: endPhrase(lines[line], titleOf) || 'is not there any more',
    })),
  ];
}
