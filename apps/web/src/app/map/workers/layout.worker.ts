/// <reference lib="webworker" />
import type { LayoutSettings } from '@pebble/contract';
import { arranging, type Graph, type LayoutData } from '@pebble/core';

export interface LayoutRequest {
  readonly graph: Graph;
  readonly radius: Float32Array;
  readonly settings: LayoutSettings;
  readonly data: LayoutData;
}

export interface LayoutFrame {
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** 0 as long as it is arranged from smaller pictures. */
  readonly iteration: number;
  readonly done: boolean;
  readonly cameToRest: boolean;
  readonly overlaps: number;
}

/** How far an arrangement is whose rounds cannot be counted, or have not begun, 0 to 1. */
export interface LayoutProgress {
  readonly share: number;
}

/** Why a network cannot be arranged so. */
export interface LayoutRefusal {
  readonly error: string;
}

/** Time between two pictures while the layout runs, in milliseconds; longer where painting them takes long. */
const PAUSE = 70;
const LONGEST_PAUSE = 1500;
/** Ties that are painted in a millisecond, about. */
const PAINTED = 250;

addEventListener('message', ({ data }: MessageEvent<LayoutRequest>) => {
  try {
    run(data);
  } catch (error) {
    // What a method cannot do it says in a sentence.
    postMessage({ error: error instanceof Error ? error.message : String(error) } satisfies LayoutRefusal);
  }
});

function run(data: LayoutRequest): void {
  const pause = Math.min(LONGEST_PAUSE, Math.max(PAUSE, data.graph.source.length / PAINTED));
  let [told, shown] = [0, 0];
  const rounds = arranging(data.graph, data.radius, data.settings, data.data, (share) => {
    const now = performance.now();
    if (now - told < PAUSE) return;
    told = now;
    postMessage({ share } satisfies LayoutProgress);
  });
  for (;;) {
    const round = rounds.next();
    if (round.done) {
      const { x, y, iterations, cameToRest, overlaps } = round.value;
      send({ x, y, iteration: iterations, done: true, cameToRest, overlaps });
      return;
    }
    const now = performance.now();
    if (now - shown < pause) continue;
    shown = now;
    const { x, y } = round.value.preview();
    send({ x, y, iteration: round.value.iteration, done: false, cameToRest: false, overlaps: 0 });
  }
}

function send(frame: LayoutFrame): void {
  postMessage(frame, { transfer: [frame.x.buffer, frame.y.buffer] as ArrayBuffer[] });
}
