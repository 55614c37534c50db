import { defaultMap, type MapDescription, type NetworkChange } from '@pebble/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { MapActions, type Place } from './map.actions';

export type Selection =
  | { readonly what: 'node'; readonly node: number }
  /** Several nodes, at least two. */
  | { readonly what: 'nodes'; readonly nodes: readonly number[] }
  | { readonly what: 'tie'; readonly source: number; readonly target: number }
  | { readonly what: 'community'; readonly community: number };

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

export interface MapState {
  readonly network: string | null;
  readonly description: MapDescription;
  /** The number of the arrangement under the map; the places themselves are not in the store. */
  readonly arrangement: number;
  /** What is to be changed in the network itself when the reader says so. */
  readonly planned: readonly NetworkChange[];
  readonly past: readonly Change[];
  /** Where hands put nodes so long ago that it cannot be undone any more. */
  readonly settled: ReadonlyMap<number, Place>;
  readonly future: readonly Change[];
  readonly selection: Selection | null;
  /** Ties of a message that was clicked in the reading pane. */
  readonly marked: {
    readonly message: number;
    readonly ties: readonly { source: number; target: number }[];
  } | null;
}

const MOST_CHANGES = 200;
const empty: MapState = {
  network: null,
  description: defaultMap,
  arrangement: 0,
  planned: [],
  past: [],
  settled: new Map(),
  future: [],
  selection: null,
  marked: null,
};

export const mapEditing = createFeature({
  name: 'map',
  reducer: createReducer(
    empty,
    on(MapActions.opened, (_, { network, description }): MapState => ({ ...empty, network, description })),
    on(MapActions.descriptionChanged, (state, { description }): MapState =>
      remember(
        { ...state, description },
        { what: 'description', before: state.description, after: description },
      ),
    ),
    on(MapActions.nodesMoved, (state, { nodes, to }): MapState =>
      remember(state, { what: 'move', nodes, to }),
    ),
    on(MapActions.firstArranged, (state, { arrangement }): MapState => ({ ...state, arrangement })),
    on(MapActions.arranged, (state, { before, after, kept }): MapState =>
      remember({ ...state, arrangement: after }, { what: 'arrangement', before, after, kept }),
    ),
    on(MapActions.changesPlanned, (state, { changes }): MapState =>
      remember({ ...state, planned: changes }, { what: 'plan', before: state.planned, after: changes }),
    ),
    on(MapActions.undoRequested, (state): MapState => {
      const change = state.past.at(-1);
      if (!change) return state;
      return {
        ...turnTo(state, change, 'before'),
        past: state.past.slice(0, -1),
        future: [change, ...state.future],
      };
    }),
    on(MapActions.redoRequested, (state): MapState => {
      const [change, ...future] = state.future;
      if (!change) return state;
      return { ...turnTo(state, change, 'after'), past: [...state.past, change], future };
    }),
    on(MapActions.nodeSelected, (state, { node }): MapState => ({
      ...state,
      selection: { what: 'node', node },
      marked: null,
    })),
    on(MapActions.nodesChosen, (state, { nodes }): MapState => ({
      ...state,
      selection: selectionOf(nodes),
      marked: null,
    })),
    on(MapActions.tieSelected, (state, { source, target }): MapState => ({
      ...state,
      selection: { what: 'tie', source, target },
      marked: null,
    })),
    on(MapActions.communitySelected, (state, { community }): MapState => ({
      ...state,
      selection: { what: 'community', community },
      marked: null,
    })),
    on(MapActions.messageSelected, (state, { message, ties }): MapState => ({
      ...state,
      marked: { message, ties },
    })),
    on(MapActions.selectionCleared, (state): MapState => ({ ...state, selection: null, marked: null })),
  ),
  extraSelectors: ({ selectPast, selectFuture, selectSettled }) => ({
    selectCanUndo: createSelector(selectPast, (past) => past.length > 0),
    selectCanRedo: createSelector(selectFuture, (future) => future.length > 0),
    /** Nodes that stand where a hand put them, with their places. */
    selectMoves: createSelector(selectSettled, selectPast, (settled, past) => movesAfter(settled, past)),
  }),
});

/** No node, one node, or several. */
function selectionOf(nodes: readonly number[]): Selection | null {
  if (nodes.length === 0) return null;
  return nodes.length === 1 ? { what: 'node', node: nodes[0] } : { what: 'nodes', nodes };
}

function turnTo(state: MapState, change: Change, side: 'before' | 'after'): MapState {
  switch (change.what) {
    case 'description':
      return { ...state, description: change[side] };
    case 'arrangement':
      return { ...state, arrangement: change[side] };
    case 'plan':
      return { ...state, planned: change[side] };
    case 'move':
      return state;
  }
}

function movesAfter(
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

/** Remembers a change; of the oldest ones, which are forgotten, the places of nodes stay. */
function remember(state: MapState, change: Change): MapState {
  const past = [...state.past, change];
  const forgotten = past.slice(0, Math.max(0, past.length - MOST_CHANGES));
  const settled = forgotten.length > 0 ? movesAfter(state.settled, forgotten) : state.settled;
  return { ...state, past: past.slice(forgotten.length), settled, future: [] };
}
