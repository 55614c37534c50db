import { computed } from '@angular/core';
import { patchState, signalStoreFeature, withComputed, withMethods, withState } from '@ngrx/signals';

export type Selection =
  | { readonly what: 'node'; readonly node: number }
  /** Several nodes, at least two. */
  | { readonly what: 'nodes'; readonly nodes: readonly number[] }
  | { readonly what: 'tie'; readonly source: number; readonly target: number }
  | { readonly what: 'community'; readonly community: number };

export interface Ends {
  readonly source: number;
  readonly target: number;
}

export interface Selected {
  readonly selection: Selection | null;
  /** Ties of a message that was clicked in the reading pane. */
  readonly marked: { readonly message: number; readonly ties: readonly Ends[] } | null;
}

const NOTHING: Selected = { selection: null, marked: null };

/** What of the map is looked at. */
export function withSelection() {
  return signalStoreFeature(
    withState<Selected>(NOTHING),
    withComputed(({ selection }) => ({
      /** The nodes that are selected: none, one, or several. */
      chosen: computed((): readonly number[] => {
        const selected = selection();
        if (selected?.what === 'nodes') return selected.nodes;
        return selected?.what === 'node' ? [selected.node] : [];
      }),
    })),
    withMethods((store) => {
      const select = (selection: Selection | null): void => patchState(store, { selection, marked: null });
      return {
        select,
        selectNode: (node: number): void => select({ what: 'node', node }),
        chooseNodes: (nodes: readonly number[]): void => select(selectionOf(nodes)),
        selectTie: ({ source, target }: Ends): void => select({ what: 'tie', source, target }),
        selectCommunity: (community: number): void => select({ what: 'community', community }),
        clearSelection: (): void => select(null),
        /** Shows the ties of a message, beside what is selected. */
        markMessage: (message: number, ties: readonly Ends[]): void =>
          patchState(store, { marked: { message, ties } }),
      };
    }),
  );
}

/** No node, one node, or several. */
function selectionOf(nodes: readonly number[]): Selection | null {
  if (nodes.length === 0) return null;
  return nodes.length === 1 ? { what: 'node', node: nodes[0] } : { what: 'nodes', nodes };
}
