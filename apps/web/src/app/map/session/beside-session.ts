import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { LayoutSettings, type MapDescription, type Network } from '@pebble/contract';
import {
  transferPositions,
  captionOf,
  captionText,
  graphOf,
  neighbourRows,
  nodeLabels,
  prepareMap,
  type MapNetwork,
} from '@pebble/core';
import { firstValueFrom, forkJoin, of } from 'rxjs';
import { Api, pathOf } from '../../api/api';
import { wholeOf } from '../../shared/slices';
import { NodePictures } from './node-pictures';
import { TieBundling } from './tie-bundling';
import { MapSession } from './map-session';
import { interleave, separate, type Places } from './places';
import { readTables } from './read-tables';

/** What a second map leaves out of its legend: the first one has it. */
const LEGEND_WITHOUT = ['shape', 'rim', 'size', 'width', 'outlines'] as const;

interface Beside {
  readonly network: Network;
  readonly data: MapNetwork;
  readonly description: MapDescription;
  readonly layout: LayoutSettings | null;
  /** Null for a map that was never arranged. */
  readonly places: Places | null;
}

/** A second network that is shown beside the one that is open. It is only looked at; the open one is what is worked on. */
@Injectable()
export class BesideSession {
  private readonly api = inject(Api);
  private readonly session = inject(MapSession);
  private readonly pictures = inject(NodePictures);
  private readonly beside = signal<Beside | null>(null);
  readonly error = signal<string | null>(null);
  readonly busy = signal(false);
  /** Whether nodes that both have stand where they stand in the open map. */
  readonly borrows = signal(true);
  readonly network = computed(() => this.beside()?.network ?? null);
  readonly data = computed(() => this.beside()?.data ?? null);

  private readonly bundling = new TieBundling();
  private readonly described = computed(() => {
    const beside = this.beside();
    if (!beside) return null;
    const { description } = beside;
    const legend = { ...description.legend, without: [...LEGEND_WITHOUT] };
    const { titles } = beside.network;
    const network = { ...beside.data, pictures: this.pictures.list(), titles };
    return prepareMap(network, { ...description, legend });
  });
  readonly prepared = computed(() => this.bundling.drawn(this.described()));

  readonly labels = computed(() => {
    const data = this.data();
    return data ? nodeLabels(data.nodes) : [];
  });

  /** Node of the open network by its name. */
  readonly nodeByName = computed(() => {
    const data = this.session.data();
    return new Map(data ? nodeLabels(data.nodes).map((name, v) => [name, v]) : []);
  });

  private readonly rows = computed(() => {
    const data = this.data();
    return data ? neighbourRows(graphOf(data.nodeCount, data.edges)) : null;
  });

  private readonly borrowed = computed(() => {
    const rows = this.rows();
    const places = this.session.places();
    if (!rows || !places) return null;
    const byName = new Map(
      [...this.nodeByName()].map(([name, v]) => [name, [places.x[v], places.y[v]] as const]),
    );
    return transferPositions(rows, this.labels(), byName);
  });

  /** How many nodes both networks have. */
  readonly common = computed(() => this.labels().filter((name) => this.nodeByName().has(name)).length);

  readonly places = computed<Places | null>(() =>
    this.isBorrowing() ? this.borrowed() : (this.beside()?.places ?? null),
  );
  readonly isBorrowing = computed(() => this.borrows() && this.common() > 0);
  /** Whether the same place means the same in both maps: so it does for slices of one whole, too. */
  readonly samePlaces = computed(() => {
    const [own, open] = [this.network(), this.session.network()];
    return this.isBorrowing() || (own !== null && open !== null && wholeOf(own) === wholeOf(open));
  });

  constructor() {
    effect(() => {
      const [map, places] = [this.described(), this.places()];
      const isMoving = this.isBorrowing() && this.session.layout().what === 'running';
      untracked(() => this.bundling.follow(map, places, isMoving));
    });
  }

  /** The nodes that are chosen on the open map, as nodes of this one. */
  readonly chosen = computed(() => {
    const data = this.session.data();
    if (!data) return [];
    const names = nodeLabels(data.nodes);
    const own = new Map(this.labels().map((name, v) => [name, v]));
    return this.session
      .chosen()
      .map((v) => own.get(names[v]))
      .filter((v) => v !== undefined);
  });

  readonly neighbours = this.rows;

  readonly captionLine = computed(() => {
    const beside = this.beside();
    const prepared = this.prepared();
    if (!beside || !prepared) return '';
    const { network, layout } = beside;
    return captionText(captionOf(network, prepared, { layout, moved: 0 }));
  });

  async open(id: string): Promise<void> {
    const study = this.session.network()?.study;
    if (study === undefined) return;
    const place = { study, id };
    this.error.set(null);
    this.busy.set(true);
    try {
      const [network, saved, tables] = await firstValueFrom(
        forkJoin([
          this.api.network(pathOf(place)),
          this.api.savedMap(pathOf(place)),
          readTables(this.api, place),
        ]),
      );
      const bytes = await firstValueFrom(saved.hasPositions ? this.api.positions(pathOf(place)) : of(null));
      this.beside.set({
        network,
        data: {
          nodeCount: network.nodes,
          directed: network.directed,
          ...tables,
        },
        description: saved.description,
        layout: saved.layout,
        places: bytes ? separate(new Float32Array(bytes)) : null,
      });
    } catch (error) {
      this.error.set(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy.set(false);
    }
  }

  /** Arranges a map that has no places yet, on the server. */
  async arrange(): Promise<void> {
    await this.keep(null, LayoutSettings.parse({}));
  }

  /** Makes the places that are borrowed from the open map this map's own. */
  async keepBorrowed(): Promise<void> {
    const places = this.places();
    if (places) await this.keep(places, this.session.settings());
  }

  private async keep(places: Places | null, layout: LayoutSettings): Promise<void> {
    const network = this.network();
    if (!network) return;
    this.busy.set(true);
    try {
      const upload = places
        ? (await firstValueFrom(this.api.sendBytes({ study: network.study }, { bytes: interleave(places) })))
            .id
        : null;
      const asked = { network: network.id, layout, upload, iterations: null, moved: 0 };
      const step = await firstValueFrom(this.api.step(network.study, 'arrange-map', asked));
      if (step.state !== 'done') throw new Error(step.error ?? 'The map could not be arranged.');
      await this.open(network.id);
    } catch (error) {
      this.error.set(error instanceof Error ? error.message : String(error));
      this.busy.set(false);
    }
  }
}
