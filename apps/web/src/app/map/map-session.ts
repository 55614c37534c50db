import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { LayoutSettings, wholeShown, type MapDescription, type Network } from '@pebble/contract';
import {
  capital,
  captionOf,
  captionText,
  focusOnCommunity,
  focusOnNodes,
  focusOnTies,
  fromArrow,
  goesOn,
  graphOf,
  keepHeld,
  kindOf,
  layoutData,
  neighbourRows,
  nodeWords,
  prepareMap,
  startingValues,
  type Focus,
  type HeldPlaces,
  type LayoutData,
  type MapNetwork,
  type DailyTieCounts,
  type Size,
  type View,
} from '@pebble/core';
import { Store } from '@ngrx/store';
import { firstValueFrom, forkJoin, of } from 'rxjs';
import { Api, ApiProblem, pathOf } from '../api/api';
import { MapActions } from '../store/map.actions';
import { mapEditing } from '../store/map.reducer';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';
import { NodePictures } from './node-pictures';
import { LayoutRun } from './layout-run';
import { interleave, separate, type Places } from './places';
import { TieBundling } from './tie-bundling';
import type { LayoutRequest } from './layout.worker';
import { slicesOf, wholeOf } from '../shared/slices';

export type LayoutState =
  { readonly what: 'none' | 'rest' } | { readonly what: 'running'; readonly done: string };

/** An arrangement that was come to. */
interface Arrangement {
  readonly places: Places;
  readonly settings: LayoutSettings;
  readonly iterations: number | null;
  /** Nodes that hands had moved before. */
  readonly moved: number;
}

/** A part of the time: from one moment on and before another; null for no bound. */
export type Period = NonNullable<MapDescription['show']['period']>;

const SAVE_AFTER = 1200;

/**
 * The network whose map is open: its tables, places and view. The typed arrays live here and not in the store; what people
 * decide (description, moves, selection) is in the store.
 */
@Injectable({ providedIn: 'root' })
export class MapSession {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly pictures = inject(NodePictures);
  readonly network = signal<Network | null>(null);
  readonly data = signal<MapNetwork | null>(null);
  /** What its nodes are called. */
  readonly words = computed(() => {
    const [one, many] = nodeWords(this.network()?.weave ?? null);
    return { one, many, Many: capital(many) };
  });
  /** Whether messages stand behind its ties, and whether these are messages from one account to another. */
  readonly hasMessages = computed(() => {
    const weave = this.network()?.weave;
    return weave != null && kindOf(weave).hasMessages;
  });
  readonly isByAddress = computed(() => {
    const weave = this.network()?.weave;
    return weave != null && kindOf(weave).isByAddress;
  });
  readonly layout = signal<LayoutState>({ what: 'none' });
  readonly settings = signal<LayoutSettings>(LayoutSettings.parse({}));
  readonly error = signal<string | null>(null);
  /** Where the reader looks; null until the map was fitted. */
  readonly view = signal<View | null>(null);
  readonly size = signal<Size>({ width: 900, height: 620 });
  /** Grows with each arrangement that begins anew: the map is then to be seen whole. */
  readonly begun = signal(0);
  private readonly base = signal<Places | null>(null);
  private readonly movedBefore = signal(0);
  /** The arrangements that can be gone back to, by their number. */
  private readonly arrangements = new Map<number, Arrangement>();
  private arrangement = 0;
  private readonly run = new LayoutRun();
  /** What is to be done when the running layout is ended before it is done. */
  private leaveLayout: () => void = () => undefined;
  private takeBackLayout: () => void = () => undefined;
  private opening = 0;
  private savedDescription: MapDescription | null = null;
  private savedMoves: ReadonlyMap<number, readonly [number, number]> | null = null;

  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly study = this.store.selectSignal(work.selectId);
  readonly description = this.store.selectSignal(mapEditing.selectDescription);
  readonly selection = this.store.selectSignal(mapEditing.selectSelection);
  /** The nodes that are selected: none, one, or several. */
  readonly chosen = computed<readonly number[]>(() => {
    const selection = this.selection();
    if (selection?.what === 'nodes') return selection.nodes;
    return selection?.what === 'node' ? [selection.node] : [];
  });
  readonly marked = this.store.selectSignal(mapEditing.selectMarked);
  readonly moves = this.store.selectSignal(mapEditing.selectMoves);
  private readonly arrangementNumber = this.store.selectSignal(mapEditing.selectArrangement);

  /** Whether the next line that is drawn on the map stays there. */
  readonly drawing = signal(false);

  /** A period that is only looked at, above the one of the description: while it is played or drawn. */
  readonly passing = signal<Period | null>(null);
  /** When the messages of the ties were written; null until it was asked for, or where it is not known. */
  readonly dailyTieCounts = signal<DailyTieCounts | null>(null);
  private dailyTieCountsOf: string | null = null;

  private readonly shownDescription = computed(() => {
    const description = this.description();
    const period = this.passing();
    return period ? { ...description, show: { ...description.show, period } } : description;
  });

  /** Draws ties together where they are bundled freely. */
  readonly bundling = new TieBundling();
  private readonly described = computed(() => {
    const data = this.data();
    const network = data && {
      ...data,
      dailyTieCounts: this.dailyTieCounts(),
      pictures: this.pictures.list(),
    };
    return network ? prepareMap(network, this.shownDescription()) : null;
  });
  readonly prepared = computed(() => this.bundling.drawn(this.described()));

  /** Places with what was moved by hand. */
  readonly places = computed<Places | null>(() => {
    const base = this.base();
    const moves = this.moves();
    // While it is arranged anew, what was moved by hand goes along.
    if (!base || moves.size === 0 || this.layout().what === 'running') return base;
    const places = { x: base.x.slice(), y: base.y.slice() };
    for (const [node, [x, y]] of moves) {
      places.x[node] = x;
      places.y[node] = y;
    }
    return places;
  });

  /** Who is tied to whom, either way. */
  readonly rows = computed(() => {
    const data = this.data();
    return data ? neighbourRows(graphOf(data.nodeCount, data.edges)) : null;
  });

  /** What a panel shows on the map, above what is selected. */
  readonly emphasis = signal<Focus | null>(null);

  readonly focus = computed<Focus | null>(() => {
    const emphasis = this.emphasis();
    if (emphasis) return emphasis;
    const data = this.data();
    const selection = this.selection();
    const marked = this.marked();
    const rows = this.rows();
    if (!data || !rows) return null;
    if (marked) return focusOnTies(data, marked.ties);
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
  });

  readonly caption = computed(() => {
    const network = this.network();
    const prepared = this.prepared();
    if (!network || !prepared) return [];
    return captionOf(network, prepared, {
      layout: this.settings(),
      // What hands had moved goes along with a layout that runs.
      moved: this.layout().what === 'running' ? 0 : this.movedBefore() + this.moves().size,
    });
  });
  readonly captionLine = computed(() => captionText(this.caption()));

  constructor() {
    // What is shown by time is shown by the messages of ties, as soon as these are known.
    effect(() => {
      if (this.description().show.period && this.data()) untracked(() => void this.readDailyTieCounts());
    });
    effect(() => {
      const study = this.network()?.study;
      if (study && this.description().shape.pictures) untracked(() => void this.pictures.open(study));
    });
    effect(() => {
      const isMoving = this.layout().what === 'running' || this.passing() !== null;
      const [map, places] = [this.described(), this.places()];
      untracked(() => this.bundling.follow(map, places, isMoving));
    });
    effect((onCleanup) => {
      const description = this.description();
      const network = untracked(this.network);
      if (!network || this.savedDescription === null || description === this.savedDescription) return;
      const timer = setTimeout(() => this.saveDescription(network, description), SAVE_AFTER);
      onCleanup(() => clearTimeout(timer));
    });
    effect(() => {
      const wanted = this.arrangementNumber();
      untracked(() => this.goBackTo(wanted));
    });
    effect((onCleanup) => {
      const moves = this.moves();
      const network = untracked(this.network);
      if (!network || this.savedMoves === null || sameMoves(moves, this.savedMoves)) return;
      const timer = setTimeout(() => void this.savePlaces(network), SAVE_AFTER);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** Opens a network's map; arranges it when it has no places yet. */
  async open(id: string): Promise<void> {
    if (this.network()?.id === id && this.network()?.state === 'measured') return;
    const study = this.study();
    if (study === null) return;
    const place = { study, id };
    const turn = ++this.opening;
    const [before, view] = [this.network(), this.view()];
    this.close();
    try {
      const network = await firstValueFrom(this.api.network(pathOf(place)));
      if (turn !== this.opening) return;
      this.network.set(network);
      // Measuring follows weaving; the screen opens the network again once its measures are there.
      if (network.state !== 'measured') return;
      const [saved, nodeBytes, edgeBytes] = await firstValueFrom(
        forkJoin([
          this.api.savedMap(pathOf(place)),
          this.api.table({ ...pathOf(place), table: 'nodes' }),
          this.api.table({ ...pathOf(place), table: 'edges' }),
        ]),
      );
      if (network.slice && !saved.hasPositions) {
        // The whole is arranged first; the screen opens the slice again once it has its places.
        this.network.set({ ...network, state: 'woven' });
        return;
      }
      const placeBytes = await firstValueFrom(
        saved.hasPositions ? this.api.positions(pathOf(place)) : of(null),
      );
      if (turn !== this.opening) return;
      this.savedDescription = saved.description;
      this.savedMoves = new Map();
      this.movedBefore.set(saved.moved);
      this.store.dispatch(MapActions.opened({ network: id, description: saved.description }));
      // Slices of one whole have one arrangement: the reader goes on looking at the same place.
      if (before && wholeOf(before) === wholeOf(network)) this.view.set(view);
      this.data.set({
        nodeCount: network.nodes,
        nodes: fromArrow(new Uint8Array(nodeBytes)),
        edges: fromArrow(new Uint8Array(edgeBytes)),
      });
      if (saved.layout) this.settings.set(saved.layout);
      if (placeBytes) {
        const places = separate(new Float32Array(placeBytes));
        this.base.set(places);
        this.arrangements.set(0, {
          places,
          settings: this.settings(),
          iterations: saved.iterations,
          moved: saved.moved,
        });
        this.layout.set({ what: 'rest' });
      } else {
        this.arrange(startingValues(graphOf(network.nodes, this.data()!.edges)));
      }
    } catch (error) {
      if (turn === this.opening) this.error.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Asks when the messages of the ties were written, once. Where it is not known, first and last ones have to do. */
  async readDailyTieCounts(): Promise<void> {
    const network = this.network();
    if (!network || !this.hasMessages() || this.dailyTieCountsOf === network.id) return;
    this.dailyTieCountsOf = network.id;
    try {
      const bytes = await firstValueFrom(this.api.dailyTieCounts(pathOf(network)));
      if (this.network()?.id !== network.id) return;
      const { edge, day, messages } = fromArrow(new Uint8Array(bytes)) as unknown as DailyTieCounts;
      this.dailyTieCounts.set({ edge, day, messages });
    } catch {
      // Ties through shared partners have no messages of their own.
      this.dailyTieCounts.set(null);
    }
  }

  /** Reads the network and its tables anew, after columns were added; places and view stay. */
  async refresh(): Promise<void> {
    const before = this.network();
    const data = this.data();
    if (!before || !data) return;
    try {
      const [network, nodes, edges] = await firstValueFrom(
        forkJoin([
          this.api.network(pathOf(before)),
          this.api.table({ ...pathOf(before), table: 'nodes' }),
          this.api.table({ ...pathOf(before), table: 'edges' }),
        ]),
      );
      if (this.network() !== before) return;
      this.network.set(network);
      this.data.set({
        ...data,
        nodes: fromArrow(new Uint8Array(nodes)),
        edges: fromArrow(new Uint8Array(edges)),
      });
    } catch (error) {
      this.fail(error as Error);
    }
  }

  close(): void {
    this.endLayout();
    // What is selected are numbers of this network's nodes; in another they would be somebody else.
    this.store.dispatch(MapActions.selectionCleared());
    this.passing.set(null);
    this.drawing.set(false);
    this.dailyTieCounts.set(null);
    this.dailyTieCountsOf = null;
    this.network.set(null);
    this.data.set(null);
    this.base.set(null);
    this.view.set(null);
    this.error.set(null);
    this.emphasis.set(null);
    this.layout.set({ what: 'none' });
    this.savedDescription = null;
    this.savedMoves = null;
    this.arrangements.clear();
    this.arrangement = 0;
    this.settings.set(LayoutSettings.parse({}));
  }

  /** Runs the layout in a web worker; places arrive while it runs. */
  arrange(settings: LayoutSettings): void {
    const data = this.data();
    const network = this.network();
    if (!data || !network) return;
    this.stopLayout();
    const before = { settings: this.settings(), base: this.base() };
    const description = this.description();
    const { radius } = prepareMap(data, { ...description, show: wholeShown });
    const held = this.heldPlaces(settings);
    if (held.size === 0 && !goesOn(settings)) this.begun.update((times) => times + 1);
    this.settings.set(settings);
    this.layout.set({ what: 'running', done: '' });
    this.takeBackLayout = () => {
      this.settings.set(before.settings);
      this.base.set(before.base);
    };
    this.leaveLayout = this.takeBackLayout;
    const request: LayoutRequest = {
      graph: graphOf(data.nodeCount, data.edges),
      radius,
      settings,
      data: layoutData(data, description, settings, goesOn(settings) ? this.present(held) : null),
    };
    this.run.start(request, {
      share: (share) => this.layout.set({ what: 'running', done: `${Math.round(100 * share)} %` }),
      frame: ({ x, y, iteration, done }) => {
        this.base.set(keepHeld(x, y, held));
        if (done) {
          this.endLayout();
          this.settle(network, iteration);
          return;
        }
        if (iteration > 0) this.layout.set({ what: 'running', done: `round ${iteration}` });
        this.leaveLayout = () => this.settle(network, iteration);
      },
      refused: (reason) => {
        this.stopLayout();
        this.store.dispatch(WorkActions.failed({ message: `${reason} The map stays as it was.` }));
        if (!this.base()) this.arrange(LayoutSettings.parse({}));
      },
      broke: (reason) => {
        this.stopLayout();
        this.error.set(`The layout stopped: ${reason}`);
      },
    });
  }

  /** Where the nodes are, and which of them are not to move. */
  private present(held: HeldPlaces): LayoutData['now'] {
    const places = this.places();
    return places && { x: places.x.slice(), y: places.y.slice(), held: [...held.keys()] };
  }

  /** Lets the server go on from where the nodes are; it does so when this page is closed, too. */
  async arrangeOnServer(settings: LayoutSettings): Promise<void> {
    const network = this.network();
    if (!network) return;
    this.stopLayout();
    if (this.savedMoves && !sameMoves(this.moves(), this.savedMoves)) await this.savePlaces(network);
    const asked = { network: network.id, layout: settings, upload: null, iterations: null, moved: 0 };
    try {
      const step = await firstValueFrom(this.api.step(network.study, 'arrange-map', asked));
      if (step.state !== 'done') throw new Error(step.error ?? 'It was cancelled.');
      const places = separate(new Float32Array(await firstValueFrom(this.api.positions(pathOf(network)))));
      if (this.network()?.id !== network.id) return;
      this.settings.set(settings);
      this.base.set(places);
      this.settle(network, Number(step.result?.['iterations'] ?? settings.iterations), 'saved');
    } catch (error) {
      const { message } = error as Error;
      this.store.dispatch(WorkActions.failed({ message: `${message} The map stays as it was.` }));
    }
  }

  /** Takes an arrangement that was worked out elsewhere. */
  takePlaces(settings: LayoutSettings, places: Places): void {
    const network = this.network();
    if (!network) return;
    this.stopLayout();
    const held = this.heldPlaces(settings);
    this.settings.set(settings);
    this.base.set(keepHeld(places.x, places.y, held));
    this.settle(network, settings.iterations);
  }

  /** The arrangement is done; it is kept, and the one before can be gone back to. */
  private settle(network: Network, iterations: number, state: 'new' | 'saved' = 'new'): void {
    const places = this.base();
    if (!places) return;
    const settings = this.settings();
    const kept = settings.keepMoved;
    const [before, after] = [this.arrangement, Math.max(0, ...this.arrangements.keys()) + 1];
    const moved = kept ? this.movedBefore() : 0;
    this.arrangements.set(after, { places, settings, iterations, moved });
    this.arrangement = after;
    this.movedBefore.set(moved);
    // A first arrangement has none before it.
    if (this.arrangements.has(before)) this.store.dispatch(MapActions.arranged({ before, after, kept }));
    else this.store.dispatch(MapActions.firstArranged({ arrangement: after }));
    if (state === 'saved') this.savedMoves = this.moves();
    else void this.savePlaces(network);
  }

  /** Lays an earlier arrangement, or a later one that was gone back from, under the map again. */
  private goBackTo(wanted: number): void {
    const network = this.network();
    const kept = this.arrangements.get(wanted);
    if (wanted === this.arrangement || !network || !kept) return;
    this.endLayout();
    this.arrangement = wanted;
    this.settings.set(kept.settings);
    this.base.set(kept.places);
    this.movedBefore.set(kept.moved);
    void this.savePlaces(network);
  }

  /** Ends a running layout where it is; one that has not got anywhere leaves the map as it was. */
  stopLayout(): void {
    if (!this.run.isRunning) return;
    const leave = this.leaveLayout;
    this.endLayout();
    leave();
  }

  /** Ends a running layout and leaves the map as it was before; a first layout is ended where it is. */
  cancelLayout(): void {
    if (!this.run.isRunning) return;
    if (this.arrangements.size === 0) {
      this.stopLayout();
      return;
    }
    this.endLayout();
    this.takeBackLayout();
  }

  private endLayout(): void {
    this.run.end();
    if (this.layout().what === 'running') this.layout.set({ what: 'rest' });
  }

  /** Nodes that stay where they are: those that are held, and by choice those that were moved by hand. */
  private heldPlaces(settings: LayoutSettings): HeldPlaces {
    const places = this.places();
    if (!places) return new Map();
    const nodes = [...this.description().held, ...(settings.keepMoved ? this.moves().keys() : [])];
    return new Map(nodes.map((v) => [v, [places.x[v], places.y[v]]]));
  }

  private saveDescription(network: Network, description: MapDescription): void {
    this.savedDescription = description;
    this.api
      .step(network.study, 'describe-map', { network: network.id, description })
      .subscribe({ error: (error: Error) => this.fail(error) });
  }

  private async savePlaces(network: Network): Promise<void> {
    const places = this.places();
    if (!places) return;
    const moves = this.moves();
    this.savedMoves = moves;
    const iterations = this.arrangements.get(this.arrangement)?.iterations ?? null;
    try {
      const { id } = await firstValueFrom(
        this.api.sendBytes({ study: network.study }, { bytes: interleave(places) }),
      );
      await firstValueFrom(
        this.api.step(network.study, 'arrange-map', {
          network: network.id,
          layout: this.settings(),
          upload: id,
          iterations,
          moved: this.movedBefore() + moves.size,
        }),
      );
      // Its slices have the same places.
      if (slicesOf(this.networks(), network.id).length > 0)
        await firstValueFrom(this.api.step(network.study, 'share-arrangement', { network: network.id }));
    } catch (error) {
      this.fail(error as Error);
    }
  }

  private fail(error: Error): void {
    // Of a network that was deleted meanwhile there is nothing to be saved.
    if (error instanceof ApiProblem && error.problem.status === 404) return;
    this.store.dispatch(WorkActions.failed({ message: `The map could not be saved. ${error.message}` }));
  }
}

function sameMoves(
  a: ReadonlyMap<number, readonly [number, number]>,
  b: ReadonlyMap<number, readonly [number, number]>,
): boolean {
  if (a.size !== b.size) return false;
  for (const [node, [x, y]] of a) {
    const other = b.get(node);
    if (!other || other[0] !== x || other[1] !== y) return false;
  }
  return true;
}
