import { signal } from '@angular/core';
import { numbersOf, type BundledPaths, type PreparedMap } from '@pebble/core';
import { bundleInWorker } from '../workers/bundle-in-worker';
import type { BundleNews } from '../workers/bundle.worker';
import type { Places } from './places';

/** How far ties are drawn together, 0 to 1, null before it is known; `stopped` when it was cancelled and was not asked for again. */
type BundlingState =
  | { readonly what: 'none' }
  | { readonly what: 'running'; readonly share: number | null }
  | { readonly what: 'stopped' };

/** Time without a change before it begins, in milliseconds. */
const REST = 200;

const NONE: BundlingState = { what: 'none' };

/** For what ties are drawn together. */
interface Wanted {
  readonly map: PreparedMap;
  readonly places: Places;
}

/**
 * Draws the ties of one map together in a web worker, as often as nodes or ties have changed. Until it is done ties keep the courses that
 * they have, or their bend.
 */
export class TieBundling {
  readonly state = signal<BundlingState>(NONE);
  private readonly done = signal<{ map: PreparedMap; courses: BundledPaths } | null>(null);
  private worker: Worker | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** For what it was done last, or is being done. */
  private present: Wanted | null = null;

  /** The map with the courses of its ties, as far as there are any. */
  drawn(map: PreparedMap | null): PreparedMap | null {
    const done = this.done();
    return map && done && isFree(map) && isSameNetwork(done.map, map)
      ? { ...map, courses: done.courses }
      : map;
  }

  /** Takes notice of what the map is now; while it moves nothing is begun. */
  follow(map: PreparedMap | null, places: Places | null, isMoving: boolean): void {
    if (!map || !places || !isFree(map)) {
      this.forget();
      return;
    }
    if (this.present && !isSameNetwork(this.present.map, map)) this.forget();
    const { present } = this;
    if (isMoving) {
      if (this.state().what === 'running') this.present = null;
      this.end();
    } else if (present?.places !== places || !sameTies(present.map.drawn, map.drawn)) {
      this.begin({ map, places });
    }
  }

  /** Stops where it is; what was drawn together before stays. */
  stop(): void {
    this.end();
    this.state.set({ what: 'stopped' });
  }

  again(): void {
    if (this.present) this.begin(this.present);
  }

  private forget(): void {
    this.end();
    this.present = null;
    this.done.set(null);
  }

  private end(): void {
    clearTimeout(this.timer);
    this.worker?.terminate();
    this.worker = null;
    this.state.set(NONE);
  }

  private begin(wanted: Wanted): void {
    this.end();
    this.present = wanted;
    this.state.set({ what: 'running', share: null });
    this.timer = setTimeout(() => this.run(wanted), REST);
  }

  private run({ map, places: { x, y } }: Wanted): void {
    const { edges } = map.network;
    const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(edges, name));
    const worker = bundleInWorker({ edges: map.drawn, source, target, weight, x, y });
    this.worker = worker;
    worker.onmessage = ({ data }: MessageEvent<BundleNews>) => {
      if (worker !== this.worker) return;
      if ('share' in data) {
        this.state.set({ what: 'running', share: data.share });
        return;
      }
      this.done.set({ map, courses: data.courses });
      this.end();
    };
    worker.onerror = () => this.stop();
  }
}

function isFree({ description }: PreparedMap): boolean {
  return description.ties.form === 'bundled freely';
}

function isSameNetwork(a: PreparedMap, b: PreparedMap): boolean {
  return a.network.edges['source'] === b.network.edges['source'];
}

function sameTies(a: Uint32Array, b: Uint32Array): boolean {
  return a.length === b.length && a.every((edge, i) => edge === b[i]);
}
