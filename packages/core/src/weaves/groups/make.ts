import type { GroupWeave } from '@pebble/contract';

/** A network whose nodes were drawn together by group. */
export interface Contracted {
  /** Names of the new nodes: groups, and single nodes of open groups. */
  readonly names: readonly string[];
  /** How many nodes each holds. */
  readonly size: Float64Array;
  /** The new node of each old one. */
  readonly of: Uint32Array;
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  readonly weight: Float64Array;
  /** Ties that each new tie stands for. */
  readonly ties: Float64Array;
  readonly dropped: number;
}

/**
 * Groups as nodes: weights between two groups are added up, those within are a self-tie. The nodes of open groups stay single.
 * @param group the group of each node; an empty one keeps the node single
 */
export function contract(
  graph: { readonly source: Uint32Array; readonly target: Uint32Array; readonly weight: Float64Array },
  labels: readonly string[],
  group: readonly string[],
  directed: boolean,
  { open, atLeast }: Pick<GroupWeave, 'open' | 'atLeast'>,
): Contracted {
  const isOpen = new Set(['', ...open]);
  const number = new Map<string, number>();
  const names: string[] = [];
  const size: number[] = [];
  const of = Uint32Array.from(group, (name, v) => {
    const single = isOpen.has(name);
    const key = single ? `node ${v}` : `group ${name}`;
    let at = number.get(key);
    if (at === undefined) {
      number.set(key, (at = names.length));
      names.push(single ? labels[v] : name);
      size.push(0);
    }
    size[at]++;
    return at;
  });
  const ties = new Map<number, { weight: number; count: number }>();
  for (let e = 0; e < graph.source.length; e++) {
    let [a, b] = [of[graph.source[e]], of[graph.target[e]]];
    if (!directed && a > b) [a, b] = [b, a];
    const key = a * names.length + b;
    const tie = ties.get(key) ?? { weight: 0, count: 0 };
    tie.weight += graph.weight[e];
    tie.count++;
    ties.set(key, tie);
  }
  const kept = [...ties].filter(([, { weight }]) => weight >= atLeast).sort(([a], [b]) => a - b);
  return {
    names,
    size: Float64Array.from(size),
    of,
    source: Uint32Array.from(kept, ([key]) => Math.floor(key / names.length)),
    target: Uint32Array.from(kept, ([key]) => key % names.length),
    weight: Float64Array.from(kept, ([, { weight }]) => weight),
    ties: Float64Array.from(kept, ([, { count }]) => count),
    dropped: ties.size - kept.length,
  };
}
