import { defaultMap, type MapDescription } from '@pebble/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { MapActions } from './map.actions';

export type Selection =
  | { readonly what: 'node'; readonly node: number }
  | { readonly what: 'tie'; readonly source: number; readonly target: number }
  | { readonly what: 'community'; readonly community: number };

/** One change to a map that can be undone. */
export type Change =
  | { readonly what: 'description'; readonly before: MapDescription; readonly after: MapDescription }
  | {
      readonly what: 'move';
      readonly node: number;
      readonly from: readonly [number, number];
      readonly to: readonly [number, number];
    };

export interface MapState {
  readonly network: string | null;
  readonly description: MapDescription;
  readonly past: readonly Change[];
  /** Where hands put nodes so long ago that it cannot be undone any more. */
  readonly settled: ReadonlyMap<number, readonly [number, number]>;
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
    on(MapActions.nodeMoved, (state, { node, from, to }): MapState =>
      remember(state, { what: 'move', node, from, to }),
    ),
    on(MapActions.undoRequested, (state): MapState => {
      const change = state.past.at(-1);
      if (!change) return state;
      const description = change.what === 'description' ? change.before : state.description;
      return { ...state, description, past: state.past.slice(0, -1), future: [change, ...state.future] };
    }),
    on(MapActions.redoRequested, (state): MapState => {
      const [change, ...future] = state.future;
      if (!change) return state;
      const description = change.what === 'description' ? change.after : state.description;
      return { ...state, description, past: [...state.past, change], future };
    }),
    on(MapActions.nodeSelected, (state, { node }): MapState => ({
      ...state,
      selection: { what: 'node', node },
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
    selectMoves: createSelector(selectSettled, selectPast, (settled, past) => {
      const moves = new Map(settled);
      for (const change of past) if (change.what === 'move') moves.set(change.node, change.to);
      return moves;
    }),
  }),
});

/** Remembers a change; of the oldest ones, which are forgotten, the places of nodes stay. */
function remember(state: MapState, change: Change): MapState {
  const past = [...state.past, change];
  const forgotten = past.slice(0, Math.max(0, past.length - MOST_CHANGES));
  if (forgotten.length === 0) return { ...state, past, future: [] };
  const settled = new Map(state.settled);
  for (const old of forgotten) if (old.what === 'move') settled.set(old.node, old.to);
  return { ...state, past: past.slice(forgotten.length), settled, future: [] };
}
