import { inject, Injectable, signal } from '@angular/core';
import { LayoutSettings, wholeShown } from '@pebble/contract';
import { graphOf, layoutData, prepareMap, type Legibility } from '@pebble/core';
import type { LayoutFrame, LayoutProgress, LayoutRefusal, LayoutRequest } from '../workers/layout.worker';
import { MapSession } from '../session/map-session';
import type { Places } from '../session/places';
import { LegibilityReader } from './legibility-reader';

/** One try with how well it reads. */
export interface Trial {
  readonly settings: LayoutSettings;
  readonly places: Places;
  readonly figures: Legibility;
  /** Lower is better. */
  readonly cost: number;
}

const TRIES = 8;

/** Arranges a network in several ways in the background, reads how well they can be read, and keeps the best of them to choose from. */
@Injectable()
export class LayoutTrials {
  private readonly session = inject(MapSession);
  readonly trials = signal<readonly Trial[]>([]);
  /** How many of the tries are done; null while none run. */
  readonly done = signal<number | null>(null);
  private worker: Worker | null = null;
  private readonly reader = new LegibilityReader();
  /** Told when the running try is ended. */
  private ended: (() => void) | null = null;

  /** Tries other seeds, and for attraction other ways in which communities are pulled apart. */
  async start(): Promise<void> {
    const data = this.session.data();
    const map = this.session.prepared();
    if (!data || !map) return;
    this.stop();
    this.trials.set([]);
    this.done.set(0);
    const before = this.session.settings();
    const description = this.session.description();
    const graph = graphOf(data.nodeCount, data.edges);
    const { radius } = prepareMap(data, { ...description, show: wholeShown });
    for (const [i, settings] of variants(before).entries()) {
      const request: LayoutRequest = {
        graph,
        radius,
        settings,
        data: layoutData(data, description, settings),
      };
      const frame = await this.run(request);
      if (!frame) return;
      const places = { x: frame.x, y: frame.y, radius: map.radius };
      const figures = await this.reader.read({ graph, nodes: map.nodes, edges: map.edges, places });
      if (!figures) return;
      const trial = { settings, places: { x: frame.x, y: frame.y }, figures, cost: costOf(figures) };
      this.trials.update((all) => [...all, trial].sort((a, b) => a.cost - b.cost));
      this.done.set(i + 1);
    }
    this.done.set(null);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    this.reader.stop();
    this.ended?.();
    this.ended = null;
    this.done.set(null);
  }

  /** The finished arrangement; null when it was stopped or refused. */
  private run(request: LayoutRequest): Promise<LayoutFrame | null> {
    return new Promise((resolve) => {
      this.ended = () => resolve(null);
      const worker = new Worker(new URL('../workers/layout.worker', import.meta.url), { type: 'module' });
      this.worker = worker;
      worker.onmessage = ({ data }: MessageEvent<LayoutFrame | LayoutProgress | LayoutRefusal>) => {
        if ('share' in data) return;
        if ('error' in data) resolve(null);
        else if (data.done) resolve(data);
        else return;
        worker.terminate();
      };
      worker.onerror = () => resolve(null);
      worker.postMessage(request);
    });
  }
}

function variants(before: LayoutSettings): LayoutSettings[] {
  const aparts = ['usual', 'far', 'little'] as const;
  return Array.from({ length: TRIES }, (_, i) => ({
    ...before,
    begin: 'anew' as const,
    seed: before.seed + i,
    apart: before.method === 'attraction' ? aparts[i % aparts.length] : before.apart,
  }));
}

/** Crossings and distances count alike, and neighbours that stand far away. */
function costOf({ crossingShare, stress, neighboursKept }: Legibility): number {
  return (
    (Number.isNaN(stress) ? 0 : stress) +
    4 * crossingShare +
    (Number.isNaN(neighboursKept) ? 0 : 1 - neighboursKept)
  );
}
