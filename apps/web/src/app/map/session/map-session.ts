import { effect, inject, untracked } from '@angular/core';
import { MapDescription, type Network, type PlateMap, type SavedMap } from '@pebble/contract';
import { graphOf, seenOn, startingValues, type MapNetwork } from '@pebble/core';
import { signalStore, withHooks, withMethods } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { finalize, firstValueFrom, forkJoin, of } from 'rxjs';
import { Api, isMissing, pathOf, type NetworkPlace } from '../../api/api';
import { Leaving } from '../../api/leaving';
import { wholeOf } from '../../shared/slices';
import { WorkActions } from '../../store/work.actions';
import { work } from '../../store/work.reducer';
import { changesDone, withSameEnds } from './changes-elsewhere';
import { plateSelection } from './plate-state';
import { separate, type Places } from './places';
import { sayUnsaved, withArrangement } from './with-arrangement';
import { withDecisions } from './with-decisions';
import { withLooking } from './with-looking';
import { withNetwork } from './with-network';
import { withPicture } from './with-picture';
import { withSelection } from './with-selection';

/** Milliseconds without a further change after which a description is kept. */
const SAVE_AFTER = 1200;

/** Milliseconds after a step in which a panel that asked for it reads the network by itself. */
const REFRESH_AFTER = 300;

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

/** Whether two descriptions say the same, whatever the order of their parts. */
function isSame(a: MapDescription, b: MapDescription): boolean {
  return JSON.stringify(MapDescription.parse(a)) === JSON.stringify(MapDescription.parse(b));
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
    const steps = global.selectSignal(work.selectSteps);
    let opening = 0;
    /** The newest step of which the tables that were read know. */
    let known = 0;
    /** Descriptions that are being kept. */
    let saving = 0;
    /** How often a description was kept, or is being kept. */
    let saves = 0;
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
        known = changesDone(steps(), id);
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
        known = changesDone(steps(), before.id);
        const [savesBefore, isQuiet] = [saves, saving === 0];
        try {
          const [network, tables, kept] = await firstValueFrom(
            forkJoin([api.network(pathOf(before)), store._readTables(before), api.savedMap(pathOf(before))]),
          );
          if (store.network() !== before) return;
          store._open({
            network,
            data: { ...data, ...tables, edges: withSameEnds(data.edges, tables.edges) },
          });
          // What was read beside a change that was being kept may be older than that.
          if (isQuiet && saves === savesBefore) methods._adopt(kept.description);
        } catch (error) {
          sayUnsaved(global, error as Error);
        }
      },

      /** The state of the map as a plate keeps it; null while there is none. */
      plateMap(): PlateMap | null {
        if (!store.data() || !store.places()) return null;
        const view = store.isFitted() ? null : store.view();
        return {
          description: store.description(),
          layout: store.settings(),
          iterations: store._rounds(),
          moved: store.movedBefore() + store.moves().size,
          view: view && { ...view, ...store.size() },
          selection: plateSelection(store.selection()),
        };
      },

      /** Puts the map into the state of a plate: what is shown, where nodes are, what is seen and selected. Undo takes it back. */
      layPlate(map: PlateMap, places: Places): void {
        store.describe(map.description);
        store._layPlaces(places, map);
        store.keepFitted(map.view === null);
        store.lookAt(map.view && seenOn(store.size(), map.view));
        store.select(map.selection);
      },

      /** Keeps at once what was changed just now. */
      keepNow(): void {
        const network = store.network();
        if (!network) return;
        const description = store.description();
        if (methods._isDescriptionUnsaved(description)) methods._saveDescription(network, description);
        if (store._arePlacesUnsaved()) void store._savePlaces(network);
      },

      close(): void {
        methods.keepNow();
        store._disarrange();
        // What is selected are numbers of this network's nodes; in another they would be somebody else.
        store.clearSelection();
        store._lookAway();
        store._closeNetwork();
        saved = null;
      },

      /** A step may have changed how the map is drawn, which can be undone; what hands changed meanwhile stays. */
      _adopt(description: MapDescription): void {
        const now = store.description();
        if (now !== saved || isSame(now, description)) return;
        saved = description;
        store.describe(description);
      },

      /** Whether steps changed the open network of which its tables do not know. */
      _isBehind(): boolean {
        const network = store.network();
        return network !== null && store.data() !== null && changesDone(steps(), network.id) > known;
      },

      _isDescriptionUnsaved: (description: MapDescription): boolean =>
        saved !== null && description !== saved,

      _saveDescription(network: Network, description: MapDescription): void {
        saved = description;
        saves++;
        saving++;
        api
          .step(network.study, 'describe-map', { network: network.id, description })
          .pipe(finalize(() => saving--))
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
      // Other screens, and steps that follow by themselves, change the network that is open.
      effect((onCleanup) => {
        if (!store._isBehind()) return;
        const timer = setTimeout(() => {
          if (store._isBehind()) void store.refresh();
        }, REFRESH_AFTER);
        onCleanup(() => clearTimeout(timer));
      });
      effect((onCleanup) => {
        const description = store.description();
        const network = untracked(store.network);
        if (!network || !store._isDescriptionUnsaved(description)) return;
        const timer = setTimeout(() => store._saveDescription(network, description), SAVE_AFTER);
        onCleanup(() => clearTimeout(timer));
      });
      inject(Leaving).do(() => {
        store.keepNow();
        return store._arePlacesKept();
      });
    },
  }),
);
export type MapSession = InstanceType<typeof MapSession>;
