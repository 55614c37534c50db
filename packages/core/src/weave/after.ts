import type { Direction } from '@pebble/contract';
import { weakComponents } from '../graph/components';
import { counted, formatCount } from './sentence';
import { keepNodes, withoutIsolates } from './keepNodes';
import { besidePlain, disparity, thinnedPhrase } from './backbone';
import { numberKeys } from './rows';
import type { Woven } from './woven';

/** What is done with a network when its ties are counted. */
export interface After {
  readonly direction?: Direction;
  readonly backbone: number | null;
  readonly neighboursAtLeast?: number | null;
  readonly largestOnly: boolean;
  /** Nodes without a tie stay, also those that lose their last one here. */
  readonly isolates: boolean;
}

/** Drops directions, keeps the backbone, then nodes tied to enough others, then the largest component, as far as they are asked for. */
export function finishWeave(
  woven: Woven,
  { direction = 'kept', backbone, neighboursAtLeast = null, largestOnly, isolates }: After,
): Woven {
  let made = direction === 'kept' || !woven.directed ? woven : undirected(woven, direction);
  if (backbone !== null) {
    const kept = disparity(made, backbone);
    const thinned = besidePlain(made, kept);
    made = { ...keepTies(made, kept, thinnedPhrase(thinned, backbone)), thinned };
    if (!isolates) made = withoutIsolates(made);
  }
  if (neighboursAtLeast !== null) {
    made = wellTied(made, neighboursAtLeast);
    if (!isolates) made = withoutIsolates(made);
  }
  return largestOnly ? largestPart(made) : made;
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

/** Nodes tied to at least so many others. They are counted once: of those that stay some may have fewer then. */
function wellTied(woven: Woven, atLeast: number): Woven {
  const { id, source, target } = woven;
  const between = Uint32Array.from(source.keys()).filter((e) => source[e] !== target[e]);
  const { keys } = numberKeys(
    between,
    (e) => Math.min(source[e], target[e]) * id.length + Math.max(source[e], target[e]),
  );
  const others = new Uint32Array(id.length);
  for (const key of keys) {
    others[Math.floor(key / id.length)]++;
    others[key % id.length]++;
  }
  const kept = Uint32Array.from(id.keys()).filter((v) => others[v] >= atLeast);
  const inside = Uint32Array.from(source.keys()).filter(
    (e) => others[source[e]] >= atLeast && others[target[e]] >= atLeast,
  );
  const note = `${formatCount(kept.length)} of ${counted(id.length, 'node')} are tied to ${counted(atLeast, 'other')} or more and were kept, with ${formatCount(inside.length)} of ${counted(source.length, 'tie')}.`;
  return keepNodes(keepTies(woven, inside, note), kept);
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
