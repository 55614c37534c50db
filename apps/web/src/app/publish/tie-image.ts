import { rasterRows, type Scene } from '@pebble/core';
import { pictureWorker } from '../map/picture-worker';
import type { RowsPainted, RowsWanted } from '../map/tie-picture.worker';

/** Ties of a scene painted as one picture, as the address of a PNG with its data. What is no longer wanted is ended. */
export class TieImage {
  private worker: Worker | null = null;

  /** @param ratio points of the picture for each pixel of the scene */
  paint(
    { width, height, lines, curves }: Scene,
    ratio: number,
    done: (address: string) => void,
    failed: (error: Error) => void,
  ): void {
    this.stop();
    const worker = pictureWorker();
    this.worker = worker;
    worker.onmessage = ({ data }: MessageEvent<RowsPainted>) => {
      this.stop();
      done(addressOf(data));
    };
    worker.onerror = ({ message }) => {
      this.stop();
      failed(new Error(`The ties could not be painted: ${message}`));
    };
    const scene = { width, height, lines, curves };
    const until = rasterRows(scene, ratio);
    worker.postMessage({ id: 0, scene, ratio, screen: ratio, from: 0, until } satisfies RowsWanted);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}

function addressOf({ width, height, rgba }: RowsPainted): string {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas.toDataURL('image/png');
}
