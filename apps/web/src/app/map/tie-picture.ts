import { RASTER_FROM, tiesIn, TieRaster, type Raster, type Scene } from '@pebble/core';

/** How much coarser a picture is that is there at once. */
const COARSE = 0.5;
/** Time without another picture before it is made sharp, in milliseconds. */
const REST = 200;

/** The ties of a very large map as a picture: coarse at once, and sharp a little later, strip by strip, so that nothing stands still. */
export class TiePicture {
  private readonly quickRaster = new TieRaster();
  private readonly sharpRaster = new TieRaster();
  private readonly canvas = document.createElement('canvas');
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** A coarse picture; null for a map that has few enough ties to be painted as they are. */
  quick(scene: Scene, ratio: number): CanvasImageSource | null {
    this.stop();
    return tiesIn(scene) < RASTER_FROM
      ? null
      : this.put(this.quickRaster.paint(scene, Math.min(1, ratio) * COARSE));
  }

  /** Tells of the sharp picture as soon as it is done, unless another scene was asked for before. */
  sharpen(scene: Scene, ratio: number, done: (picture: CanvasImageSource) => void): void {
    const strips = this.sharpRaster.painting(scene, Math.min(1, ratio));
    const next = (): void => {
      const strip = strips.next();
      if (strip.done) done(this.put(strip.value));
      else this.timer = setTimeout(next);
    };
    this.timer = setTimeout(next, REST);
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private put({ width, height, rgba }: Raster): HTMLCanvasElement {
    this.canvas.width = width;
    this.canvas.height = height;
    this.canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
    return this.canvas;
  }
}
