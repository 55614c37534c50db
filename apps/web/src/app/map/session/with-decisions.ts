import { computed } from '@angular/core';
import type { MapDescription, NetworkChange } from '@pebble/contract';
import { patchState, signalStoreFeature, withComputed, withMethods, withState } from '@ngrx/signals';
import { changed, movesAfter, NOTHING_DECIDED, redone, undone, type Decided, type Place } from './undo';

/** What people decide of the map: its description, moved nodes, planned changes; with undo. */
export function withDecisions() {
  return signalStoreFeature(
    withState<Decided>(NOTHING_DECIDED),
    withComputed(({ past, future, settled }) => ({
      canUndo: computed(() => past().length > 0),
      canRedo: computed(() => future().length > 0),
      /** Nodes that stand where a hand put them, with their places. */
      moves: computed(() => movesAfter(settled(), past())),
    })),
    withMethods((store) => ({
      /** Says of the map something else. */
      describe(description: MapDescription): void {
        patchState(store, (state) =>
          changed(state, { what: 'description', before: state.description, after: description }),
        );
      },
      /** Hands put nodes to places, one for each. */
      moveNodes(nodes: readonly number[], to: readonly Place[]): void {
        patchState(store, (state) => changed(state, { what: 'move', nodes, to }));
      },
      /** What is to be changed in the network, all of it in its order. */
      plan(changes: readonly NetworkChange[]): void {
        patchState(store, (state) => changed(state, { what: 'plan', before: state.planned, after: changes }));
      },
      undo(): void {
        patchState(store, undone);
      },
      redo(): void {
        patchState(store, redone);
      },
      /** Another network is open: nothing was decided but how it is shown. */
      _decideAnew(description: MapDescription): void {
        patchState(store, { ...NOTHING_DECIDED, description });
      },
      /** The first arrangement, which has none before it. */
      _firstArranged(arrangementNumber: number): void {
        patchState(store, { arrangementNumber });
      },
      /** Another arrangement lies under the map. @param kept whether what hands had moved stays where it was */
      _rearranged(before: number, after: number, kept: boolean): void {
        patchState(store, (state) => changed(state, { what: 'arrangement', before, after, kept }));
      },
    })),
  );
}
