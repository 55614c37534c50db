import { RASTER_FROM, rasterRows, tiesIn, TieRaster, type Raster, type Scene } from '@pebble/core';
import { pictureWorker } from '../workers/picture-worker';
import type { RowsPainted, RowsWanted } from '../workers/tie-picture.worker';

/** How much coarser a picture is that is there at once. */
const COARSE = 0.5;
/** So many ties it has at most; of more it is a sketch. */
const SKETCHED = 30_000;
/** Time without another picture before it is made sharp, in milliseconds. */
const REST = 120;
/** Parts of the sharp picture, each painted by a worker. */
const PARTS = 2;

/** The ties of a very large map as a picture: a coarse sketch at once, and all of them sharp a little later from workers, so that nothing stands still. */
export class TiePicture {
  private readonly raster = new TieRaster();
  private readonly canvas = document.createElement('canvas');
  private timer: ReturnType<typeof setTimeout> | undefined;
  private workers: Worker[] = [];
  /** Pictures that were asked for. */
  private asked = 0;

  /**
   * A coarse picture; null for a map that has few enough ties to be painted as they are.
   * @param arePieces whether the curves of the scene are pieces of ties, which a sketch must not leave out one by one
   */
  quick(scene: Scene, ratio: number, arePieces = false): CanvasImageSource | null {
    this.stop();
    const ties = tiesIn(scene);
    if (ties < RASTER_FROM) return null;
    const every = arePieces ? 1 : Math.max(1, Math.floor(ties / SKETCHED));
    const picture = this.raster.paint(scene, Math.min(1, ratio) * COARSE, { every, screen: ratio });
    this.size(picture.width, picture.height);
    this.put(picture, 0);
    return this.canvas;
  }

  /** Tells of the sharp picture as soon as it is done, unless another scene was asked for before. */
  sharpen(scene: Scene, ratio: number, done: (picture: CanvasImageSource) => void): void {
    this.timer = setTimeout(() => this.ask(scene, ratio, done), REST);
  }

  /** What is being made sharp is not wanted any more. */
  stop(): void {
    clearTimeout(this.timer);
    this.asked++;
    for (const worker of this.workers) worker.postMessage(null);
  }

  close(): void {
    this.stop();
    for (const worker of this.workers) worker.terminate();
    this.workers = [];
  }

  private ask(
    { width, height, lines, curves }: Scene,
    ratio: number,
    done: (picture: CanvasImageSource) => void,
  ): void {
    const id = this.asked;
    const fine = Math.min(1, ratio);
    const rows = rasterRows({ height }, fine);
    while (this.workers.length < PARTS) this.workers.push(pictureWorker());
    const painted: RowsPainted[] = [];
    this.workers.forEach((worker, i) => {
      worker.onmessage = ({ data }: MessageEvent<RowsPainted>) => {
        if (data.id !== this.asked) return;
        painted.push(data);
        if (painted.length < PARTS) return;
        this.size(data.width, rows);
        for (const part of painted) this.put(part, part.from);
        done(this.canvas);
      };
      const [from, until] = [i, i + 1].map((part) => Math.round((rows * part) / PARTS));
      const scene = { width, height, lines, curves };
      worker.postMessage({ id, scene, ratio: fine, screen: ratio, from, until } satisfies RowsWanted);
    });
  }

  private size(width: number, height: number): void {
    this.canvas.width = width;
    this.canvas.height = height;
  }

  private put({ width, height, rgba }: Raster, top: number): void {
    this.canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, top);
  }
}
