import { effect, inject, untracked, type Signal } from '@angular/core';
import { LayoutSettings, wholeShown, type Network, type PlateMap } from '@pebble/contract';
import {
  goesOn,
  graphOf,
  keepHeld,
  layoutData,
  prepareMap,
  type HeldPlaces,
  type LayoutData,
} from '@pebble/core';
import { patchState, signalStoreFeature, type, withHooks, withMethods } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, ApiProblem, pathOf } from '../../api/api';
import { slicesOf } from '../../shared/slices';
import { WorkActions } from '../../store/work.actions';
import { work } from '../../store/work.reducer';
import { LayoutRun } from '../workers/layout-run';
import type { LayoutRequest } from '../workers/layout.worker';
import { interleave, separate, type Places } from './places';
import { NOT_ARRANGED, type Arranged } from './with-picture';
import type { Decided, Place } from './undo';
import type { Opened } from './with-network';

/** An arrangement that was come to. */
interface Arrangement {
  readonly places: Places;
  readonly settings: LayoutSettings;
  readonly iterations: number | null;
  /** Nodes that hands had moved before. */
  readonly moved: number;
}

/** Milliseconds without a further move after which places are kept. */
const SAVE_AFTER = 1200;

/** What is said of a first arrangement that ends as soon as it has places. */
const ENDING = 'ends at its first places';

/** What is asked of the features before. */
// eslint-disable-next-line @typescript-eslint/consistent-type-definitions -- the store takes no interface
type Asked = {
  _fail(error: string): void;
  _firstArranged(arrangement: number): void;
  _rearranged(before: number, after: number, kept: boolean): void;
};

/** Arranges the map, keeps where its nodes are, and goes back to arrangements before. */
export function withArrangement() {
  return signalStoreFeature(
    {
      state: type<Opened & Decided & Arranged>(),
      props: type<{ moves: Signal<ReadonlyMap<number, Place>>; places: Signal<Places | null> }>(),
      methods: type<Asked>(),
    },
    withMethods((store, api = inject(Api), global = inject<Store>(Store)) => {
      const run = new LayoutRun();
      const networks = global.selectSignal(work.selectNetworks);
      /** The arrangements that can be gone back to, by their number. */
      const arrangements = new Map<number, Arrangement>();
      let arrangement = 0;
      /** What is to be done when the running layout is ended before it is done. */
      let leaveLayout: () => void = () => undefined;
      let takeBackLayout: () => void = () => undefined;
      /** A first arrangement was asked to end before it had any places. */
      let endsAtFirstPlaces = false;
      let savedMoves: ReadonlyMap<number, Place> | null = null;
      /** Places that are being kept. */
      let saving = 0;

      const endLayout = (): void => {
        run.end();
        if (store.layout().what === 'running') patchState(store, { layout: { what: 'rest' } });
      };

      /** Ends a running layout where it is; one that has not got anywhere leaves the map as it was. */
      const leaveRun = (): void => {
        if (!run.isRunning) return;
        const leave = leaveLayout;
        endLayout();
        leave();
      };

      const savePlaces = async (network: Network): Promise<void> => {
        const places = store.places();
        if (!places) return;
        const moves = store.moves();
        savedMoves = moves;
        const { study } = network;
        const iterations = arrangements.get(arrangement)?.iterations ?? null;
        const moved = store.movedBefore() + moves.size;
        const asked = { network: network.id, layout: store.settings(), iterations, moved };
        saving++;
        try {
          const { id: upload } = await firstValueFrom(
            api.sendBytes({ study }, { bytes: interleave(places) }),
          );
          await firstValueFrom(api.step(study, 'arrange-map', { ...asked, upload }));
          // Its slices have the same places.
          if (slicesOf(networks(), network.id).length > 0)
            await firstValueFrom(api.step(study, 'share-arrangement', { network: network.id }));
        } catch (error) {
          sayUnsaved(global, error as Error);
        } finally {
          saving--;
        }
      };

      /** The arrangement is done; it is kept, and the one before can be gone back to. */
      const settle = (
        network: Network,
        iterations: number,
        state: 'new' | 'saved' = 'new',
        movedOfPlate: number | null = null,
      ): void => {
        const places = store.base();
        if (!places) return;
        const settings = store.settings();
        const kept = settings.keepMoved && movedOfPlate === null;
        const [before, after] = [arrangement, Math.max(0, ...arrangements.keys()) + 1];
        const moved = movedOfPlate ?? (kept ? store.movedBefore() : 0);
        arrangements.set(after, { places, settings, iterations, moved });
        arrangement = after;
        patchState(store, { movedBefore: moved });
        // A first arrangement has none before it.
        if (arrangements.has(before)) store._rearranged(before, after, kept);
        else store._firstArranged(after);
        if (state === 'saved') savedMoves = store.moves();
        else void savePlaces(network);
      };

      /** Nodes that stay where they are: those that are held, and by choice those that were moved by hand. */
      const heldPlaces = (settings: LayoutSettings): HeldPlaces => {
        const places = store.places();
        if (!places) return new Map();
        const nodes = [...store.description().held, ...(settings.keepMoved ? store.moves().keys() : [])];
        return new Map(nodes.map((v) => [v, [places.x[v], places.y[v]]]));
      };

      /** Where the nodes are, and which of them are not to move. */
      const present = (held: HeldPlaces): LayoutData['now'] => {
        const places = store.places();
        return places && { x: places.x.slice(), y: places.y.slice(), held: [...held.keys()] };
      };

      const isUnsaved = (): boolean => savedMoves !== null && !sameMoves(store.moves(), savedMoves);

      const failed = (reason: string): void =>
        global.dispatch(WorkActions.failed({ message: `${reason} The map stays as it was.` }));

      const methods = {
        /** Runs the layout in a web worker; places arrive while it runs. */
        arrange(settings: LayoutSettings): void {
          const data = store.data();
          const network = store.network();
          if (!data || !network) return;
          leaveRun();
          const before = { settings: store.settings(), base: store.base() };
          const description = store.description();
          const { radius } = prepareMap(data, { ...description, show: wholeShown });
          const held = heldPlaces(settings);
          const isAnew = held.size === 0 && !goesOn(settings);
          const request: LayoutRequest = {
            graph: graphOf(data.nodeCount, data.edges),
            radius,
            settings,
            data: layoutData(data, description, settings, goesOn(settings) ? present(held) : null),
          };
          patchState(store, {
            begun: store.begun() + (isAnew ? 1 : 0),
            settings,
            layout: { what: 'running', done: '' },
          });
          takeBackLayout = () => patchState(store, before);
          leaveLayout = takeBackLayout;
          endsAtFirstPlaces = false;
          const isAt = (done: string): void => {
            if (!endsAtFirstPlaces) patchState(store, { layout: { what: 'running', done } });
          };
          run.start(request, {
            share: (share) => isAt(`${Math.round(100 * share)} %`),
            frame: ({ x, y, iteration, done }) => {
              patchState(store, { base: keepHeld(x, y, held) });
              if (done || endsAtFirstPlaces) {
                endLayout();
                settle(network, iteration);
                return;
              }
              if (iteration > 0) isAt(`round ${iteration}`);
              leaveLayout = () => settle(network, iteration);
            },
            refused: (reason) => {
              leaveRun();
              failed(reason);
              if (!store.base()) methods.arrange(LayoutSettings.parse({}));
            },
            broke: (reason) => {
              leaveRun();
              store._fail(`The layout stopped: ${reason}`);
            },
          });
        },

        /** Lets the server go on from where the nodes are; it does so when this page is closed, too. */
        async arrangeOnServer(settings: LayoutSettings): Promise<void> {
          const network = store.network();
          if (!network) return;
          leaveRun();
          if (isUnsaved()) await savePlaces(network);
          const asked = { network: network.id, layout: settings, upload: null, iterations: null, moved: 0 };
          try {
            const step = await firstValueFrom(api.step(network.study, 'arrange-map', asked));
            if (step.state !== 'done') throw new Error(step.error ?? 'It was cancelled.');
            const bytes = await firstValueFrom(api.positions(pathOf(network)));
            if (store.network()?.id !== network.id) return;
            patchState(store, { settings, base: separate(new Float32Array(bytes)) });
            settle(network, Number(step.result?.['iterations'] ?? settings.iterations), 'saved');
          } catch (error) {
            failed((error as Error).message);
          }
        },

        /** Takes an arrangement that was worked out elsewhere. */
        takePlaces(settings: LayoutSettings, { x, y }: Places): void {
          const network = store.network();
          if (!network) return;
          leaveRun();
          patchState(store, { settings, base: keepHeld(x, y, heldPlaces(settings)) });
          settle(network, settings.iterations);
        },

        /** Lays the places of a plate under the map, which can be undone. */
        _layPlaces(places: Places, { layout, iterations, moved }: PlateMap): void {
          const network = store.network();
          if (!network) return;
          leaveRun();
          patchState(store, { settings: layout ?? store.settings(), base: places });
          settle(network, iterations ?? 0, 'new', moved);
        },

        /** With how many rounds the nodes came to where they are; null where it is not known. */
        _rounds: (): number | null => arrangements.get(arrangement)?.iterations ?? null,

        /** Ends a running layout where it is; a first one has places to end at from its first picture on. */
        stopLayout(): void {
          if (run.isRunning && !store.base()) {
            endsAtFirstPlaces = true;
            patchState(store, { layout: { what: 'running', done: ENDING } });
          } else leaveRun();
        },

        /** Ends a running layout and leaves the map as it was before; a first layout is ended where it is. */
        cancelLayout(): void {
          if (!run.isRunning) return;
          if (arrangements.size === 0) {
            methods.stopLayout();
            return;
          }
          endLayout();
          takeBackLayout();
        },

        /** Takes over places that were kept; null where the network has none. */
        _begin(kept: Arrangement | null): void {
          savedMoves = new Map();
          if (!kept) return;
          arrangements.set(0, kept);
          const { places, settings, moved } = kept;
          patchState(store, { base: places, settings, movedBefore: moved, layout: { what: 'rest' } });
        },

        /** Lays an earlier arrangement, or a later one that was gone back from, under the map again. */
        _goBackTo(wanted: number): void {
          const network = store.network();
          const kept = arrangements.get(wanted);
          if (wanted === arrangement || !network || !kept) return;
          endLayout();
          arrangement = wanted;
          patchState(store, { settings: kept.settings, base: kept.places, movedBefore: kept.moved });
          void savePlaces(network);
        },

        /** Forgets all arrangements. */
        _disarrange(): void {
          run.end();
          savedMoves = null;
          arrangements.clear();
          arrangement = 0;
          patchState(store, NOT_ARRANGED);
        },

        _arePlacesUnsaved: isUnsaved,
        _arePlacesKept: (): boolean => saving === 0 && !isUnsaved(),
        _savePlaces: savePlaces,
      };
      return methods;
    }),
    withHooks({
      onInit(store) {
        effect(() => {
          const wanted = store.arrangementNumber();
          untracked(() => store._goBackTo(wanted));
        });
        effect((onCleanup) => {
          store.moves();
          const network = untracked(store.network);
          if (!network || !untracked(store._arePlacesUnsaved)) return;
          const timer = setTimeout(() => void store._savePlaces(network), SAVE_AFTER);
          onCleanup(() => clearTimeout(timer));
        });
      },
    }),
  );
}

/** Says that something of the map was not kept; of a network that was deleted meanwhile there is nothing to be kept. */
export function sayUnsaved(global: Store, error: Error): void {
  if (error instanceof ApiProblem && error.problem.status === 404) return;
  global.dispatch(WorkActions.failed({ message: `The map could not be saved. ${error.message}` }));
}

function sameMoves(a: ReadonlyMap<number, Place>, b: ReadonlyMap<number, Place>): boolean {
  if (a.size !== b.size) return false;
  for (const [node, [x, y]] of a) {
    const other = b.get(node);
    if (!other || other[0] !== x || other[1] !== y) return false;
  }
  return true;
}
