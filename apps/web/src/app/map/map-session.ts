import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { LayoutSettings, wholeShown, type MapDescription, type Network } from '@pebble/contract';
import {
  capital,
  captionPhrases,
  captionText,
  fromArrow,
  graphOf,
  keepHeld,
  layoutData,
  neighbourRows,
  nodeWords,
  numbersOf,
  prepareMap,
  type Focus,
  type HeldPlaces,
  type MapNetwork,
  type Size,
  type View,
} from '@pebble/core';
import { Store } from '@ngrx/store';
import { firstValueFrom, forkJoin, of } from 'rxjs';
import { Api } from '../api/api';
import { MapActions } from '../store/map.actions';
import { mapEditing } from '../store/map.reducer';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';
import type { LayoutFrame, LayoutProgress, LayoutRefusal, LayoutRequest } from './layout.worker';
import { slicesOf, wholeOf } from '../shared/slices';

export interface Places {
  readonly x: Float32Array;
  readonly y: Float32Array;
}

export type LayoutState =
  { readonly what: 'none' | 'rest' } | { readonly what: 'running'; readonly done: string };

const SAVE_AFTER = 1200;

/**
 * The network whose map is open: its tables, places and view. The typed arrays live here and not in the store; what people
 * decide (description, moves, selection) is in the store.
 */
@Injectable({ providedIn: 'root' })
export class MapSession {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
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
    return weave != null && weave.what !== 'follows';
  });
  readonly isByAddress = computed(() => this.network()?.weave?.what === 'accounts');
  readonly layout = signal<LayoutState>({ what: 'none' });
  readonly settings = signal<LayoutSettings>(LayoutSettings.parse({}));
  readonly error = signal<string | null>(null);
  /** Where the reader looks; null until the map was fitted. */
  readonly view = signal<View | null>(null);
  readonly size = signal<Size>({ width: 900, height: 620 });
  private readonly base = signal<Places | null>(null);
  private readonly movedBefore = signal(0);
  private worker: Worker | null = null;
  private opening = 0;
  private savedDescription: MapDescription | null = null;
  private savedMoves: ReadonlyMap<number, readonly [number, number]> | null = null;

  private readonly networks = this.store.selectSignal(work.selectNetworks);
  readonly description = this.store.selectSignal(mapEditing.selectDescription);
  readonly selection = this.store.selectSignal(mapEditing.selectSelection);
  readonly marked = this.store.selectSignal(mapEditing.selectMarked);
  readonly moves = this.store.selectSignal(mapEditing.selectMoves);

  readonly prepared = computed(() => {
    const data = this.data();
    return data ? prepareMap(data, this.description()) : null;
  });

  /** Places with what was moved by hand. */
  readonly places = computed<Places | null>(() => {
    const base = this.base();
    const moves = this.moves();
    if (!base || moves.size === 0) return base;
    const places = { x: base.x.slice(), y: base.y.slice() };
    for (const [node, [x, y]] of moves) {
      places.x[node] = x;
      places.y[node] = y;
    }
    return places;
  });

  private readonly rows = computed(() => {
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
    if (!data) return null;
    if (marked) return focusOnTies(data, marked.ties);
    if (!selection) return null;
    if (selection.what === 'tie') return focusOnTies(data, [selection]);
    if (selection.what === 'community') return focusOnCommunity(data, selection.community);
    return this.focusOnNode(data, selection.node);
  });

  readonly caption = computed(() => {
    const network = this.network();
    const prepared = this.prepared();
    if (!network || !prepared) return [];
    return captionPhrases({
      weave: network.weave,
      directed: network.directed,
      description: this.description(),
      layout: this.settings(),
      moved: this.movedBefore() + this.moves().size,
      shown: { nodes: prepared.nodes.length, edges: prepared.edges.length },
      hidden: { nodes: prepared.hiddenNodes, edges: prepared.hiddenEdges },
    });
  });
  readonly captionLine = computed(() => captionText(this.caption()));

  constructor() {
    effect((onCleanup) => {
      const description = this.description();
      const network = untracked(this.network);
      if (!network || this.savedDescription === null || description === this.savedDescription) return;
      const timer = setTimeout(() => this.saveDescription(network, description), SAVE_AFTER);
      onCleanup(() => clearTimeout(timer));
    });
    effect((onCleanup) => {
      const moves = this.moves();
      const network = untracked(this.network);
      if (!network || this.savedMoves === null || sameMoves(moves, this.savedMoves)) return;
      const timer = setTimeout(
        () => void this.savePlaces(network, null, this.movedBefore() + moves.size),
        SAVE_AFTER,
      );
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** Opens a network's map; arranges it when it has no places yet. */
  async open(id: string): Promise<void> {
    if (this.network()?.id === id && this.network()?.state === 'measured') return;
    const turn = ++this.opening;
    const [before, view] = [this.network(), this.view()];
    this.close();
    try {
      const network = await firstValueFrom(this.api.network(id));
      if (turn !== this.opening) return;
      this.network.set(network);
      // Measuring follows weaving; the screen opens the network again once its measures are there.
      if (network.state !== 'measured') return;
      const [saved, nodeBytes, edgeBytes] = await firstValueFrom(
        forkJoin([this.api.savedMap(id), this.api.table(id, 'nodes'), this.api.table(id, 'edges')]),
      );
      if (network.slice && !saved.hasPositions) {
        // The whole is arranged first; the screen opens the slice again once it has its places.
        this.network.set({ ...network, state: 'woven' });
        return;
      }
      const placeBytes = await firstValueFrom(saved.hasPositions ? this.api.positions(id) : of(null));
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
        this.base.set(separate(new Float32Array(placeBytes)));
        this.layout.set({ what: 'rest' });
      } else {
        this.arrange(this.settings());
      }
    } catch (error) {
      if (turn === this.opening) this.error.set(error instanceof Error ? error.message : String(error));
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
          this.api.network(before.id),
          this.api.table(before.id, 'nodes'),
          this.api.table(before.id, 'edges'),
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
    this.stopLayout();
    this.network.set(null);
    this.data.set(null);
    this.base.set(null);
    this.view.set(null);
    this.error.set(null);
    this.emphasis.set(null);
    this.layout.set({ what: 'none' });
    this.savedDescription = null;
    this.savedMoves = null;
    this.settings.set(LayoutSettings.parse({}));
  }

  /** Runs the layout in a web worker; places arrive while it runs. */
  arrange(settings: LayoutSettings): void {
    const data = this.data();
    const network = this.network();
    if (!data || !network) return;
    this.stopLayout();
    const before = this.settings();
    this.settings.set(settings);
    this.layout.set({ what: 'running', done: '' });
    const description = this.description();
    const { radius } = prepareMap(data, { ...description, show: wholeShown });
    const held = this.heldPlaces(settings);
    const worker = new Worker(new URL('./layout.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    worker.onmessage = ({ data: frame }: MessageEvent<LayoutFrame | LayoutProgress | LayoutRefusal>) => {
      if (worker !== this.worker) return;
      if ('share' in frame) {
        this.layout.set({ what: 'running', done: `${Math.round(100 * frame.share)} %` });
        return;
      }
      if ('error' in frame) {
        this.stopLayout();
        this.settings.set(before);
        this.store.dispatch(WorkActions.failed({ message: `${frame.error} The map stays as it was.` }));
        if (!this.base()) this.arrange(LayoutSettings.parse({}));
        return;
      }
      this.base.set(keepHeld(frame.x, frame.y, held));
      if (!frame.done) {
        this.layout.set({ what: 'running', done: `round ${frame.iteration}` });
        return;
      }
      this.stopLayout();
      this.settle(network, frame.iteration);
    };
    worker.onerror = ({ message }) => {
      this.error.set(`The layout stopped: ${message}`);
      this.layout.set({ what: 'rest' });
    };
    const request: LayoutRequest = {
      graph: graphOf(data.nodeCount, data.edges),
      radius,
      settings,
      data: layoutData(data, description, settings),
    };
    worker.postMessage(request);
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

  /** The arrangement is done: what was moved by hand before is part of it, and it is kept. */
  private settle(network: Network, iterations: number): void {
    this.layout.set({ what: 'rest' });
    this.movedBefore.set(0);
    this.savedDescription = this.description();
    this.savedMoves = new Map();
    this.store.dispatch(MapActions.opened({ network: network.id, description: this.description() }));
    void this.savePlaces(network, iterations, 0);
  }

  /** Ends a running layout where it is. */
  stopLayout(): void {
    this.worker?.terminate();
    this.worker = null;
    if (this.layout().what === 'running') this.layout.set({ what: 'rest' });
  }

  /** Nodes that stay where they are: those that are held, and by choice those that were moved by hand. */
  private heldPlaces(settings: LayoutSettings): HeldPlaces {
    const places = this.places();
    if (!places) return new Map();
    const nodes = [...this.description().held, ...(settings.keepMoved ? this.moves().keys() : [])];
    return new Map(nodes.map((v) => [v, [places.x[v], places.y[v]]]));
  }

  private focusOnNode(data: MapNetwork, node: number): Focus {
    const rows = this.rows()!;
    const around = new Set(rows.neighbour.slice(rows.offset[node], rows.offset[node + 1]));
    const edges = new Set<number>();
    const source = numbersOf(data.edges, 'source');
    const target = numbersOf(data.edges, 'target');
    for (let e = 0; e < source.length; e++) if (source[e] === node || target[e] === node) edges.add(e);
    return { nodes: new Set([node]), around, edges };
  }

  private saveDescription(network: Network, description: MapDescription): void {
    this.savedDescription = description;
    this.api
      .step(network.study, 'describe-map', { network: network.id, description })
      .subscribe({ error: (error: Error) => this.fail(error) });
  }

  private async savePlaces(network: Network, iterations: number | null, moved: number): Promise<void> {
    const places = this.places();
    if (!places) return;
    this.savedMoves = this.moves();
    try {
      const { id } = await firstValueFrom(this.api.sendBytes(network.study, interleave(places)));
      await firstValueFrom(
        this.api.step(network.study, 'arrange-map', {
          network: network.id,
          layout: this.settings(),
          upload: id,
          iterations,
          moved,
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
    this.store.dispatch(WorkActions.failed({ message: `The map could not be saved. ${error.message}` }));
  }
}

function focusOnTies(data: MapNetwork, ties: readonly { source: number; target: number }[]): Focus {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const edges = new Set<number>();
  for (let e = 0; e < source.length; e++)
    if (ties.some((tie) => tie.source === source[e] && tie.target === target[e])) edges.add(e);
  const nodes = new Set(ties.flatMap((tie) => [tie.source, tie.target]));
  return { nodes, around: nodes, edges };
}

function focusOnCommunity(data: MapNetwork, community: number): Focus {
  const group = numbersOf(data.nodes, 'community');
  const around = new Set<number>();
  group.forEach((value: number, v: number) => void (value === community && around.add(v)));
  return { nodes: new Set(), around, edges: new Set() };
}

function separate(pairs: Float32Array): Places {
  const count = pairs.length / 2;
  const places = { x: new Float32Array(count), y: new Float32Array(count) };
  for (let v = 0; v < count; v++) {
    places.x[v] = pairs[2 * v];
    places.y[v] = pairs[2 * v + 1];
  }
  return places;
}

function interleave({ x, y }: Places): ArrayBuffer {
  const pairs = new Float32Array(x.length * 2);
  for (let v = 0; v < x.length; v++) {
    pairs[2 * v] = x[v];
    pairs[2 * v + 1] = y[v];
  }
  return pairs.buffer;
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
