import type { Direction } from '@pebble/contract';
import { counted } from '../../words/sentence';
import type { Woven } from './woven';

/** Both ties of a pair by their places; -1 where there is none the other way. */
interface Pair {
  readonly there: number;
  back: number;
}

/**
 * Both directions of a pair as one tie. Added up, counts of both count, and the first and the last moment are those of either; where one
 * direction counts, all that is told of the tie is told of that direction, and the tie goes from and to as that direction does, so that its
 * messages are found again. Of two equal ones that from the node with the lower number counts.
 */
export function undirected(woven: Woven, direction: Exclude<Direction, 'kept'>): Woven {
  const { source, target, weight, columns, id } = woven;
  const pairs = new Map<number, Pair>();
  for (let e = 0; e < source.length; e++) {
    const key = Math.min(source[e], target[e]) * id.length + Math.max(source[e], target[e]);
    const pair = pairs.get(key);
    if (pair) pair.back = e;
    else pairs.set(key, { there: e, back: -1 });
  }
  const needsBoth = direction === 'mutual' || direction === 'least';
  const isKept = ({ there, back }: Pair): boolean =>
    !needsBoth || back >= 0 || source[there] === target[there];
  const kept = [...pairs].filter(([, pair]) => isKept(pair)).sort(([a], [b]) => a - b);
  const added = direction === 'sum' || direction === 'mutual';
  const lower = ({ there, back }: Pair): number => (back >= 0 && source[back] < source[there] ? back : there);
  /** The direction that counts alone. */
  const one = (pair: Pair): number => {
    const first = lower(pair);
    if (pair.back < 0) return first;
    const other = first === pair.there ? pair.back : pair.there;
    const isOther = direction === 'least' ? weight[other] < weight[first] : weight[other] > weight[first];
    return isOther ? other : first;
  };
  const place = kept.map(([, pair]) => (added ? lower(pair) : one(pair)));
  const join = (name: string, values: Float64Array): Float64Array =>
    Float64Array.from(kept, ([, { there, back }], i) =>
      !added || back < 0 ? values[place[i]] : addedUp(name)(values[there], values[back]),
    );
  const dropped = pairs.size - kept.length;
  // Added up, the lower number comes first, whoever began.
  const ends = (a: Uint32Array, b: Uint32Array, of: (x: number, y: number) => number): Uint32Array =>
    Uint32Array.from(place, (e) => (added ? of(a[e], b[e]) : a[e]));
  return {
    ...woven,
    directed: false,
    source: ends(source, target, Math.min),
    target: ends(target, source, Math.max),
    weight: join('weight', weight),
    columns: Object.fromEntries(Object.entries(columns).map(([name, values]) => [name, join(name, values)])),
    notes:
      dropped > 0
        ? [...woven.notes, `${counted(dropped, 'tie')} in one direction alone left out.`]
        : woven.notes,
  };
}

/** What becomes of the values of both directions where they are added up; days are given for both together. */
function addedUp(name: string): (a: number, b: number) => number {
  switch (name) {
    case 'first':
      return (a, b) => (Number.isNaN(a) || b < a ? b : a);
    case 'last':
      return (a, b) => (Number.isNaN(a) || b > a ? b : a);
    case 'days':
      return Math.max;
    default:
      return (a, b) => a + b;
  }
}
