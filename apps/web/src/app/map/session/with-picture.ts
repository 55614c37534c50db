import { computed, effect, inject, untracked, type Signal } from '@angular/core';
import { LayoutSettings, type TitlesByColumn } from '@pebble/contract';
import {
  captionOf,
  captionText,
  focusOnCommunity,
  focusOnNodes,
  focusOnTies,
  prepareMap,
  type Csr,
  type Focus,
  type MapNetwork,
  type Phrase,
  type PreparedMap,
} from '@pebble/core';
import {
  signalStoreFeature,
  type,
  withComputed,
  withHooks,
  withMethods,
  withProps,
  withState,
} from '@ngrx/signals';
import { NodePictures } from './node-pictures';
import type { Places } from './places';
import { TieBundling } from './tie-bundling';
import type { Decided, Place } from './undo';
import type { Looking } from './with-looking';
import type { Opened } from './with-network';
import type { Selected, Selection } from './with-selection';

export type LayoutState =
  { readonly what: 'none' | 'rest' } | { readonly what: 'running'; readonly done: string };

/** Where the nodes stand. */
export interface Arranged {
  readonly layout: LayoutState;
  readonly settings: LayoutSettings;
  /** Places without what hands moved since. */
  readonly base: Places | null;
  /** Nodes that hands had moved before these places were kept. */
  readonly movedBefore: number;
  /** Grows with each arrangement that begins anew: the map is then to be seen whole. */
  readonly begun: number;
}

export const NOT_ARRANGED: Omit<Arranged, 'begun'> = {
  layout: { what: 'none' },
  settings: LayoutSettings.parse({}),
  base: null,
  movedBefore: 0,
};

/** The map as it is drawn: from the network, where its nodes are, and what was decided. */
export function withPicture() {
  return signalStoreFeature(
    {
      state: type<Opened & Decided & Selected & Looking>(),
      props: type<{
        moves: Signal<ReadonlyMap<number, Place>>;
        rows: Signal<Csr | null>;
        titles: Signal<TitlesByColumn>;
      }>(),
    },
    withState<Arranged>({ ...NOT_ARRANGED, begun: 0 }),
    withProps(() => ({
      /** Draws ties together where they are bundled freely. */
      bundling: new TieBundling(),
      _pictures: inject(NodePictures),
    })),
    withComputed((store) => ({
      _described: computed(() => {
        const data = store.data();
        if (!data) return null;
        const description = store.description();
        const period = store.passing();
        const { dailyTieCounts, _pictures } = store;
        return prepareMap(
          { ...data, dailyTieCounts: dailyTieCounts(), pictures: _pictures.list(), titles: store.titles() },
          period ? { ...description, show: { ...description.show, period } } : description,
        );
      }),
      /** Places with what was moved by hand. */
      places: computed((): Places | null => {
        const base = store.base();
        const moves = store.moves();
        // While it is arranged anew, what was moved by hand goes along.
        if (!base || moves.size === 0 || store.layout().what === 'running') return base;
        const places = { x: base.x.slice(), y: base.y.slice() };
        for (const [node, [x, y]] of moves) {
          places.x[node] = x;
          places.y[node] = y;
        }
        return places;
      }),
      focus: computed((): Focus | null => {
        const emphasis = store.emphasis();
        if (emphasis) return emphasis;
        const data = store.data();
        const marked = store.marked();
        const rows = store.rows();
        if (!data || !rows) return null;
        return marked ? focusOnTies(data, marked.ties) : focusOf(store.selection(), data, rows);
      }),
    })),
    withComputed((store) => ({
      prepared: computed(() => store.bundling.drawn(store._described())),
    })),
    withMethods((store) => ({
      /** What the caption says of this map, were it the one that is drawn. */
      captionFor(map: PreparedMap): Phrase[] {
        const network = store.network();
        if (!network) return [];
        return captionOf(network, map, {
          layout: store.settings(),
          // What hands had moved goes along with a layout that runs.
          moved: store.layout().what === 'running' ? 0 : store.movedBefore() + store.moves().size,
        });
      },
    })),
    withComputed((store) => ({
      caption: computed(() => {
        const prepared = store.prepared();
        return prepared ? store.captionFor(prepared) : [];
      }),
    })),
    withComputed((store) => ({ captionLine: computed(() => captionText(store.caption())) })),
    withHooks({
      onInit(store) {
        effect(() => {
          const study = store.network()?.study;
          if (study && store.description().shape.pictures) untracked(() => void store._pictures.open(study));
        });
        effect(() => {
          const isMoving = store.layout().what === 'running' || store.passing() !== null;
          const [map, places] = [store._described(), store.places()];
          untracked(() => store.bundling.follow(map, places, isMoving));
        });
      },
    }),
  );
}

function focusOf(selection: Selection | null, data: MapNetwork, rows: Csr): Focus | null {
  switch (selection?.what) {
    case undefined:
      return null;
    case 'tie':
      return focusOnTies(data, [selection]);
    case 'community':
      return focusOnCommunity(data, selection.community);
    case 'node':
      return focusOnNodes(data, rows, [selection.node]);
    case 'nodes':
      return focusOnNodes(data, rows, selection.nodes);
  }
}
