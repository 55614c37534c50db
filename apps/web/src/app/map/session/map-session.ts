import { effect, inject, untracked } from '@angular/core';
import type { MapDescription, Network, SavedMap } from '@pebble/contract';
import { graphOf, startingValues, type MapNetwork } from '@pebble/core';
import { signalStore, withHooks, withMethods } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { firstValueFrom, forkJoin, of } from 'rxjs';
import { Api, isMissing, pathOf, type NetworkPlace } from '../../api/api';
import { wholeOf } from '../../shared/slices';
import { WorkActions } from '../../store/work.actions';
import { work } from '../../store/work.reducer';
import { separate, type Places } from './places';
import { sayUnsaved, withArrangement } from './with-arrangement';
import { withDecisions } from './with-decisions';
import { withLooking } from './with-looking';
import { withNetwork } from './with-network';
import { withPicture } from './with-picture';
import { withSelection } from './with-selection';

/** Milliseconds without a further change after which a description is kept. */
const SAVE_AFTER = 1200;

/** What is read of a network that is opened. */
interface Read {
  readonly network: Network;
  /** Null while it is not measured, or the whole of which it is a slice has no places yet. */
  readonly map: {
    readonly saved: SavedMap;
    readonly data: MapNetwork;
    readonly places: Places | null;
  } | null;
}

/** The map that is open, in parts: the network, what was decided of it, what is selected, where its nodes are, and how it looks. */
export const MapSession = signalStore(
  { providedIn: 'root' },
  withDecisions(),
  withSelection(),
  withLooking(),
  withNetwork(),
  withPicture(),
  withArrangement(),
  withMethods((store, api = inject(Api), global = inject<Store>(Store)) => {
    const study = global.selectSignal(work.selectId);
    let opening = 0;
    /** The description as it is kept; null while no map is open. */
    let saved: MapDescription | null = null;

    const read = async (place: NetworkPlace, isWanted: () => boolean): Promise<Read> => {
      const network = await firstValueFrom(api.network(pathOf(place)));
      // Measuring follows weaving; the screen opens the network again once its measures are there.
      if (network.state !== 'measured' || !isWanted()) return { network, map: null };
      store._open({ network });
      const [kept, tables] = await firstValueFrom(
        forkJoin([api.savedMap(pathOf(place)), store._readTables(place)]),
      );
      // The whole is arranged first; the screen opens the slice again once it has its places.
      if (network.slice && !kept.hasPositions) return { network: { ...network, state: 'woven' }, map: null };
      const bytes = await firstValueFrom(kept.hasPositions ? api.positions(pathOf(place)) : of(null));
      const places = bytes && separate(new Float32Array(bytes));
      return {
        network,
        map: {
          saved: kept,
          data: { nodeCount: network.nodes, directed: network.directed, ...tables },
          places,
        },
      };
    };

    const methods = {
      /** Opens a network's map; arranges it when it has no places yet. */
      async open(id: string): Promise<void> {
        const before = store.network();
        if (before?.id === id && before.state === 'measured') return;
        const of = study();
        if (of === null) return;
        const turn = ++opening;
        const view = store.view();
        methods.close();
        try {
          const { network, map } = await read({ study: of, id }, () => turn === opening);
          if (turn !== opening) return;
          if (!map) return store._open({ network });
          saved = map.saved.description;
          store._decideAnew(saved);
          global.dispatch(WorkActions.networkOpened({ id }));
          // Slices of one whole have one arrangement: the reader goes on looking at the same place.
          if (before && wholeOf(before) === wholeOf(network)) {
            store.lookAt(view);
            store.keepFitted(view === null);
          }
          store._open({ network, data: map.data });
          const { layout, iterations, moved } = map.saved;
          const settings = layout ?? store.settings();
          store._begin(map.places && { places: map.places, settings, iterations, moved });
          if (!map.places) store.arrange(startingValues(graphOf(network.nodes, map.data.edges)));
        } catch (error) {
          if (turn === opening)
            store._fail(error instanceof Error ? error.message : String(error), isMissing(error));
        }
      },

      /** Reads the network and its tables anew, after columns were added; places and view stay. */
      async refresh(): Promise<void> {
        const before = store.network();
        const data = store.data();
        if (!before || !data) return;
        try {
          const [network, tables] = await firstValueFrom(
            forkJoin([api.network(pathOf(before)), store._readTables(before)]),
          );
          if (store.network() === before) store._open({ network, data: { ...data, ...tables } });
        } catch (error) {
          sayUnsaved(global, error as Error);
        }
      },

      close(): void {
        store._disarrange();
        // What is selected are numbers of this network's nodes; in another they would be somebody else.
        store.clearSelection();
        store._lookAway();
        store._closeNetwork();
        saved = null;
      },

      _isDescriptionUnsaved: (description: MapDescription): boolean =>
        saved !== null && description !== saved,

      _saveDescription(network: Network, description: MapDescription): void {
        saved = description;
        api
          .step(network.study, 'describe-map', { network: network.id, description })
          .subscribe({ error: (error: Error) => sayUnsaved(global, error) });
      },
    };
    return methods;
  }),
  withHooks({
    onInit(store) {
      // What is shown by time is shown by the messages of ties, as soon as these are known.
      effect(() => {
        if (store.description().show.period && store.data()) untracked(() => void store.readDailyTieCounts());
      });
      effect((onCleanup) => {
        const description = store.description();
        const network = untracked(store.network);
        if (!network || !store._isDescriptionUnsaved(description)) return;
        const timer = setTimeout(() => store._saveDescription(network, description), SAVE_AFTER);
        onCleanup(() => clearTimeout(timer));
      });
    },
  }),
);
export type MapSession = InstanceType<typeof MapSession>;
