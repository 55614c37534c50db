import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { Network, Plate, PlateMap } from '@pebble/contract';
import {
  fromArrow,
  numbersOf,
  prepareMap,
  type BundledPaths,
  type MapNetwork,
  type PagePart,
  type PreparedMap,
} from '@pebble/core';
import { Store } from '@ngrx/store';
import { firstValueFrom, forkJoin, of } from 'rxjs';
import { Api, pathOf } from '../api/api';
import { Plates } from '../map/plates/plates';
import { separate, type Places } from '../map/session/places';
import { readTables } from '../map/session/read-tables';
import { bundleInWorker } from '../map/workers/bundle-in-worker';
import { work } from '../store/work.reducer';
import type { BundleNews } from '../map/workers/bundle.worker';

/** A plate that can be drawn. */
export interface DrawnPlate extends PagePart {
  readonly plate: Plate;
  readonly network: Network;
}

/** The plates that were chosen for a page, with all that drawing them needs. */
@Injectable()
export class PlateParts {
  private readonly api = inject(Api);
  private readonly plates = inject(Plates);
  private readonly networks = inject(Store).selectSignal(work.selectNetworks);
  /** By their numbers; null before anybody chose. */
  readonly chosen = signal<readonly number[] | null>(null);
  /** Read so far, by the plate and what it depended on. */
  private readonly read = signal<ReadonlyMap<string, DrawnPlate>>(new Map());
  private readonly tables = new Map<string, Promise<MapNetwork>>();
  /** Why one of them could not be read; null where all could. */
  readonly problem = signal<Error | null>(null);

  /** Those that are on the page, in the order of the list; the first ones where nobody chose. */
  readonly onPage = computed<readonly Plate[]>(() => {
    const drawn = (this.plates.all() ?? []).filter(
      ({ today: { what } }) => what !== 'no network' && what !== 'not drawn',
    );
    const chosen = this.chosen();
    return chosen ? drawn.filter(({ id }) => chosen.includes(id)) : drawn.slice(0, USUAL);
  });
  readonly ids = computed(() => this.onPage().map(({ id }) => id));
  /** Null while one of them is being read, and where there is none. */
  readonly parts = computed<readonly DrawnPlate[] | null>(() => {
    const read = this.read();
    const parts = this.onPage().flatMap((plate) => read.get(this.keyOf(plate)) ?? []);
    return parts.length > 0 && parts.length === this.onPage().length ? parts : null;
  });

  constructor() {
    effect(() => {
      for (const plate of this.onPage()) {
        const key = this.keyOf(plate);
        if (!untracked(this.read).has(key)) untracked(() => void this.take(key, plate));
      }
    });
  }

  /** What a drawn plate depends on: itself, and what is known of its network by now. */
  private keyOf({ id, step, title, today, network }: Plate): string {
    const { columns, groupings, titles } = this.networks().find((one) => one.id === network) ?? {};
    return JSON.stringify([id, step, title, today, columns, groupings, titles]);
  }

  private readonly taken = new Set<string>();

  private async take(key: string, plate: Plate): Promise<void> {
    if (this.taken.has(key)) return;
    this.taken.add(key);
    this.problem.set(null);
    try {
      const drawn = await this.draw(plate);
      this.read.update((read) => new Map(read).set(key, drawn));
    } catch (error) {
      this.problem.set(error as Error);
    } finally {
      this.taken.delete(key);
    }
  }

  private async draw(plate: Plate): Promise<DrawnPlate> {
    const study = this.plates.study()!;
    const at = { study, plate: plate.id };
    const [map, bytes, network] = await firstValueFrom(
      forkJoin([
        this.api.plateMap(at),
        this.api.platePositions(at),
        this.api.network({ study, network: plate.network }),
      ]),
    );
    const places = separate(new Float32Array(bytes));
    const prepared = prepareMap(await this.networkOf(network, map), map.description);
    return {
      plate,
      network,
      title: plate.title,
      map: { ...prepared, courses: await coursesOf(prepared, places) },
      ...places,
      seen: map.view,
    };
  }

  /** The tables of a network, with what its plate shows of it; several plates of one network share them. */
  private async networkOf(network: Network, { description }: PlateMap): Promise<MapNetwork> {
    const at = pathOf(network);
    const key = JSON.stringify([network.id, network.columns, network.groupings]);
    let tables = this.tables.get(key);
    if (!tables) {
      tables = firstValueFrom(readTables(this.api, network)).then((read) => ({
        nodeCount: network.nodes,
        directed: network.directed,
        ...read,
      }));
      this.tables.set(key, tables);
    }
    const [whole, days, pictures] = await Promise.all([
      tables,
      description.show.period ? firstValueFrom(this.api.dailyTieCounts(at)).catch(() => null) : null,
      firstValueFrom(description.shape.pictures ? this.api.pictures({ study: network.study }) : of([])),
    ]);
    const dailyTieCounts = days && fromArrow(new Uint8Array(days));
    return {
      ...whole,
      titles: network.titles,
      pictures,
      dailyTieCounts: dailyTieCounts as unknown as MapNetwork['dailyTieCounts'],
    };
  }
}

/** So many are on a page before anybody chose. */
const USUAL = 4;

/** How ties run that are bundled freely; null for others. */
function coursesOf(map: PreparedMap, { x, y }: Places): Promise<BundledPaths | null> {
  if (map.description.ties.form !== 'bundled freely') return Promise.resolve(null);
  const { edges } = map.network;
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(edges, name));
  return new Promise((resolve, reject) => {
    const worker = bundleInWorker({ edges: map.drawn, source, target, weight, x, y });
    worker.onmessage = ({ data }: MessageEvent<BundleNews>) => {
      if ('share' in data) return;
      worker.terminate();
      resolve(data.courses);
    };
    worker.onerror = ({ message }) => {
      worker.terminate();
      reject(new Error(`Ties could not be drawn together: ${message}`));
    };
  });
}
