import type { Direction } from '@pebble/contract';
import { weakComponents } from '../graph/components';
import { counted, formatCount } from './sentence';
import { keepNodes, withoutIsolates } from './keepNodes';
import type { Woven } from './woven';

/** What is done with a network when its ties are counted. */
export interface After {
  readonly direction?: Direction;
  readonly backbone: number | null;
  readonly largestOnly: boolean;
  /** Nodes without a tie stay, also those that lose their last one here. */
  readonly isolates: boolean;
}

/** Drops directions, keeps the backbone, and keeps the largest component, in this order, as far as they are asked for. */
export function finishWeave(
  woven: Woven,
  { direction = 'kept', backbone, largestOnly, isolates }: After,
): Woven {
  let made = direction === 'kept' || !woven.directed ? woven : undirected(woven, direction);
  if (backbone !== null) {
    const kept = disparity(made, backbone);
    const note = `The disparity filter at ${backbone} (Serrano et al. 2009) keeps ${formatCount(kept.length)} of ${counted(made.source.length, 'tie')}.`;
    made = keepTies(made, kept, note);
    if (!isolates) made = withoutIsolates(made);
  }
  return largestOnly ? largestPart(made) : made;
}

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

/** Both directions of a pair as one tie; counts are added up, the first and the last moment are those of either. */
export function undirected(woven: Woven, direction: Exclude<Direction, 'kept'>): Woven {
  const { source, target, weight, columns, id } = woven;
  const pairs = new Map<number, { readonly there: number; back: number }>();
  const order: number[] = [];
  for (let e = 0; e < source.length; e++) {
    const key = Math.min(source[e], target[e]) * id.length + Math.max(source[e], target[e]);
    const pair = pairs.get(key);
    if (pair) pair.back = e;
    else {
      pairs.set(key, { there: e, back: -1 });
      order.push(key);
    }
  }
  const isKept = (key: number): boolean => {
    const { there, back } = pairs.get(key)!;
    return direction !== 'mutual' || back >= 0 || source[there] === target[there];
  };
  const keys = order.filter(isKept).sort((a, b) => a - b);
  const join = (values: Float64Array, both: (a: number, b: number) => number): Float64Array =>
    Float64Array.from(keys, (key) => {
      const { there, back } = pairs.get(key)!;
      return back < 0 ? values[there] : both(values[there], values[back]);
    });
  // Of a pair with one direction alone the other one weighs nothing.
  const least = (values: Float64Array): Float64Array =>
    Float64Array.from(keys, (key) => {
      const { there, back } = pairs.get(key)!;
      if (source[there] === target[there]) return values[there];
      return back < 0 ? 0 : Math.min(values[there], values[back]);
    });
  const sum = (a: number, b: number): number => a + b;
  const earlier = (a: number, b: number): number => (Number.isNaN(a) || b < a ? b : a);
  const later = (a: number, b: number): number => (Number.isNaN(a) || b > a ? b : a);
  // Days are given for both directions together.
  const byName = (name: string) =>
    name === 'first' ? earlier : name === 'last' ? later : name === 'days' ? Math.max : sum;
  const made: Woven = {
    ...woven,
    directed: false,
    source: Uint32Array.from(keys, (key) => Math.floor(key / id.length)),
    target: Uint32Array.from(keys, (key) => key % id.length),
    weight: direction === 'least' ? least(weight) : join(weight, direction === 'greatest' ? Math.max : sum),
    columns: Object.fromEntries(
      Object.entries(columns).map(([name, values]) => [name, join(values, byName(name))]),
    ),
  };
  const dropped = order.length - keys.length;
  const noted =
    dropped > 0
      ? { ...made, notes: [...made.notes, `${counted(dropped, 'tie')} in one direction alone left out.`] }
      : made;
  if (direction !== 'least') return noted;
  const kept = Uint32Array.from(noted.weight.keys()).filter((e) => noted.weight[e] > 0);
  const weightless = noted.weight.length - kept.length;
  return keepTies(
    noted,
    kept,
    weightless > 0 ? `${counted(weightless, 'tie')} in one direction alone left out.` : null,
  );
}

function keepTies(woven: Woven, kept: Uint32Array, note: string | null): Woven {
  const of = (values: Float64Array): Float64Array => Float64Array.from(kept, (e) => values[e]);
  return {
    ...woven,
    source: Uint32Array.from(kept, (e) => woven.source[e]),
    target: Uint32Array.from(kept, (e) => woven.target[e]),
    weight: of(woven.weight),
    columns: Object.fromEntries(Object.entries(woven.columns).map(([name, values]) => [name, of(values)])),
    notes: note === null ? woven.notes : [...woven.notes, note],
  };
}

function largestPart(woven: Woven): Woven {
  const { id, source, target, weight } = woven;
  const { of, count } = weakComponents({ nodeCount: id.length, source, target, weight });
  if (count < 2) return woven;
  const kept = Uint32Array.from(of.keys()).filter((v) => of[v] === 0);
  const inside = Uint32Array.from(source.keys()).filter((e) => of[source[e]] === 0);
  const note = `Only the largest of ${formatCount(count)} components was kept: ${formatCount(kept.length)} of ${counted(id.length, 'node')}.`;
  return keepNodes(keepTies(woven, inside, note), kept);
}
