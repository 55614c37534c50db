import { paintCanvas, rasterRows, type Scene } from '@pebble/core';
import { pictureWorker } from '../map/workers/picture-worker';
import type { RowsPainted, RowsWanted } from '../map/workers/tie-picture.worker';

/** All of a scene below its names painted as one picture, as the address of a PNG with its data. What is no longer wanted is ended. */
export class LargePicture {
  private worker: Worker | null = null;

  /** @param ratio points of the picture for each pixel of the scene */
  paint(scene: Scene, ratio: number, done: (address: string) => void, failed: (error: Error) => void): void {
    this.stop();
    const worker = pictureWorker();
    this.worker = worker;
    worker.onmessage = ({ data }: MessageEvent<RowsPainted>) => {
      this.stop();
      done(addressOf(scene, ratio, data));
    };
    worker.onerror = ({ message }) => {
      this.stop();
      failed(new Error(`The ties could not be painted: ${message}`));
    };
    const { width, height, lines, curves } = scene;
    const until = rasterRows(scene, ratio);
    worker.postMessage({
      id: 0,
      scene: { width, height, lines, curves },
      ratio,
      screen: ratio,
      from: 0,
      until,
    } satisfies RowsWanted);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}

const NO_LEGEND: Scene['legend'] = { regions: [], lines: [], discs: [], rings: [], texts: [], spots: [] };

function addressOf(scene: Scene, ratio: number, { width, height, rgba }: RowsPainted): string {
  const ties = canvasOf(width, height);
  ties.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  const whole = canvasOf(width, height);
  const pen = whole.getContext('2d')!;
  pen.scale(ratio, ratio);
  // Names, legend and the ground are left to the figure.
  paintCanvas(pen, { ...scene, ground: 'transparent', leaders: [], texts: [], legend: NO_LEGEND }, ties);
  return whole.toDataURL('image/png');
}

function canvasOf(width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  return canvas;
}
