/// <reference lib="webworker" />
import { TieRaster, type TieScene } from '@pebble/core';

/** Rows of a picture that are asked for; null ends what is being done. */
export interface RowsWanted {
  readonly id: number;
  readonly scene: TieScene;
  readonly ratio: number;
  readonly screen: number;
  readonly from: number;
  readonly until: number;
}

export interface RowsPainted {
  readonly id: number;
  readonly from: number;
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

const raster = new TieRaster();
let timer: ReturnType<typeof setTimeout> | undefined;

addEventListener('message', ({ data }: MessageEvent<RowsWanted | null>) => {
  clearTimeout(timer);
  if (data) paint(data);
});

/** Strip by strip, so that it can be ended. */
function paint({ id, scene, ratio, screen, from, until }: RowsWanted): void {
  const strips = raster.painting(scene, ratio, { from, until, screen });
  const next = (): void => {
    const strip = strips.next();
    if (!strip.done) {
      timer = setTimeout(next);
      return;
    }
    const { width, height } = strip.value;
    // The memory of the picture is used again.
    const rgba = strip.value.rgba.slice();
    postMessage({ id, from, width, height, rgba } satisfies RowsPainted, { transfer: [rgba.buffer] });
  };
  next();
}
