import type { ProjectionWeave } from '@pebble/contract';
import { withoutIsolates } from '../common/keepNodes';
import { project } from '../common/projection';
import { pick } from '../common/rows';
import { counted } from '../../words/sentence';
import { sortWords } from './words';
import { textsIn, type TableColumns } from '../../network/tables';
import type { Woven } from '../common/woven';

/** A network of two sorts of nodes. */
export interface TwoSorts {
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  /** The sort of each node. */
  readonly sort: readonly string[];
}

/** Whether there are two sorts of nodes, and every tie leads from one to the other. */
export function isTwoMode({ source, target, sort }: TwoSorts): boolean {
  return new Set(sort).size === 2 && source.every((a, e) => sort[a] !== sort[target[e]]);
}

/** The sort of each node of a two-mode network, by its column "mode"; null for another network. */
export function sortsIn(nodes: TableColumns, edges: TableColumns): readonly string[] | null {
  if (!('mode' in nodes)) return null;
  const sort = textsIn(nodes['mode']);
  const [source, target] = [edges['source'], edges['target']] as Uint32Array[];
  return isTwoMode({ source, target, sort }) ? sort : null;
}

/**
 * The nodes of one sort, tied by those of the other sort that they share; their ids are their places in the two-mode network. Directions
 * and weights of its ties do not count.
 */
export function weaveOneSort({ source, target, sort: sortOf }: TwoSorts, weave: ProjectionWeave): Woven {
  const { sort, scale, atLeast, partnersAtLeast, isolates } = weave;
  const all = Uint32Array.from(sortOf.keys()).filter((v) => sortOf[v] === sort);
  const ofSort = (e: number): number => (sortOf[source[e]] === sort ? source[e] : target[e]);
  const partner = (e: number): number => (sortOf[source[e]] === sort ? target[e] : source[e]);
  const partners: Set<number>[] = sortOf.map(() => new Set());
  for (let e = 0; e < source.length; e++) partners[ofSort(e)].add(partner(e));
  const id = all.filter((v) => partners[v].size >= partnersAtLeast);
  const place = new Int32Array(sortOf.length).fill(-1);
  id.forEach((v, i) => (place[v] = i));
  const ties = Uint32Array.from(source.keys()).filter((e) => place[ofSort(e)] >= 0);
  const made = project(
    {
      nodes: id.length,
      units: sortOf.length,
      node: pick(ties, (e) => place[ofSort(e)]),
      unit: pick(ties, partner),
      time: new Float64Array(ties.length).fill(NaN),
    },
    { scale, atLeast },
  );
  const few = all.length - id.length;
  const woven: Woven = {
    directed: false,
    id,
    mode: new Uint8Array(id.length),
    uses: Float64Array.from(id, (v) => partners[v].size),
    source: made.source,
    target: made.target,
    weight: made.weight,
    columns: { shared: made.shared },
    evidence: null,
    droppedBelowThreshold: made.dropped,
    notes:
      few > 0
        ? [`${counted(few, ...sortWords(weave.sort))} tied to fewer than ${partnersAtLeast} left out.`]
        : [],
  };
  return isolates ? woven : withoutIsolates(woven);
}

type Ties = Pick<TwoSorts, 'source' | 'target'>;

/** A pair of nodes that are tied. */
export interface Tie {
  readonly source: number;
  readonly target: number;
}

/** The ties of a two-mode network that tie pairs of nodes of one sort: from either one to what both share. */
export function tiesBehind(ties: Ties, pairs: readonly Tie[]): Tie[] {
  const partners = new Map<number, Set<number>>();
  const tied = (node: number, to: number): void => void (partners.get(node) ?? made(node)).add(to);
  const made = (node: number): Set<number> => partners.set(node, new Set()).get(node)!;
  for (let e = 0; e < ties.source.length; e++) {
    tied(ties.source[e], ties.target[e]);
    tied(ties.target[e], ties.source[e]);
  }
  return pairs.flatMap(({ source, target }) =>
    [...(partners.get(source) ?? [])]
      .filter((shared) => partners.get(target)?.has(shared))
      .flatMap((shared) => [
        { source, target: shared },
        { source: target, target: shared },
      ]),
  );
}

/**
 * Pairs of nodes of one sort whose tie goes through some of the ties of a two-mode network: one end of such a tie with all others that
 * are tied to its other end.
 */
export function tiesThrough(
  ties: Ties,
  some: readonly Tie[],
  isOfSort: (node: number) => boolean,
): [number, number][] {
  return some.flatMap(({ source, target }) => {
    const [node, partner] = isOfSort(source) ? [source, target] : [target, source];
    return around(ties, new Set([partner]))
      .filter((other) => other !== node && isOfSort(other))
      .map((other): [number, number] => [node, other]);
  });
}

/** Nodes tied to some of these. */
function around({ source, target }: Ties, nodes: ReadonlySet<number>): number[] {
  const found = new Set<number>();
  for (let e = 0; e < source.length; e++) {
    if (nodes.has(source[e])) found.add(target[e]);
    if (nodes.has(target[e])) found.add(source[e]);
  }
  return [...found];
}
