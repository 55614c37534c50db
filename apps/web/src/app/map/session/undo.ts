import { defaultMap, type MapDescription, type NetworkChange } from '@pebble/contract';

export type Place = readonly [x: number, y: number];

/** One change to a map that can be undone. */
export type Change =
  | { readonly what: 'description'; readonly before: MapDescription; readonly after: MapDescription }
  | {
      readonly what: 'plan';
      readonly before: readonly NetworkChange[];
      readonly after: readonly NetworkChange[];
    }
  | { readonly what: 'move'; readonly nodes: readonly number[]; readonly to: readonly Place[] }
  | {
      readonly what: 'arrangement';
      readonly before: number;
      readonly after: number;
      /** Whether nodes that hands had moved stayed where they were. */
      readonly kept: boolean;
    };

/** What people decide of a map, with how it came about. */
export interface Decided {
  readonly description: MapDescription;
  /** The number of the arrangement under the map; the places themselves are not here. */
  readonly arrangementNumber: number;
  /** What is to be changed in the network itself when the reader says so. */
  readonly planned: readonly NetworkChange[];
  readonly past: readonly Change[];
  /** Where hands put nodes so long ago that it cannot be undone any more. */
  readonly settled: ReadonlyMap<number, Place>;
  readonly future: readonly Change[];
}

export const NOTHING_DECIDED: Decided = {
  description: defaultMap,
  arrangementNumber: 0,
  planned: [],
  past: [],
  settled: new Map(),
  future: [],
};

const MOST_CHANGES = 200;

/** The state after a change. */
export function changed(state: Decided, change: Change): Decided {
  return remember(turnTo(state, change, 'after'), change);
}

/** The state before the last change, which can be done again. */
export function undone(state: Decided): Decided {
  const change = state.past.at(-1);
  if (!change) return state;
  return {
    ...turnTo(state, change, 'before'),
    past: state.past.slice(0, -1),
    future: [change, ...state.future],
  };
}

export function redone(state: Decided): Decided {
  const [change, ...future] = state.future;
  if (!change) return state;
  return { ...turnTo(state, change, 'after'), past: [...state.past, change], future };
}

/** Nodes that stand where a hand put them, with their places. */
export function movesAfter(
  before: ReadonlyMap<number, Place>,
  changes: readonly Change[],
): ReadonlyMap<number, Place> {
  const moves = new Map(before);
  for (const change of changes) {
    if (change.what === 'move') change.nodes.forEach((node, i) => moves.set(node, change.to[i]));
    else if (change.what === 'arrangement' && !change.kept) moves.clear();
  }
  return moves;
}

function turnTo(state: Decided, change: Change, side: 'before' | 'after'): Decided {
  switch (change.what) {
    case 'description':
      return { ...state, description: change[side] };
    case 'arrangement':
      return { ...state, arrangementNumber: change[side] };
    case 'plan':
      return { ...state, planned: change[side] };
    case 'move':
      return state;
  }
}

/** Remembers a change; of the oldest ones, which are forgotten, the places of nodes stay. */
function remember(state: Decided, change: Change): Decided {
  const past = [...state.past, change];
  const forgotten = past.slice(0, Math.max(0, past.length - MOST_CHANGES));
  const settled = forgotten.length > 0 ? movesAfter(state.settled, forgotten) : state.settled;
  return { ...state, past: past.slice(forgotten.length), settled, future: [] };
}
