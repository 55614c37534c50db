import {
  buildScene,
  paintCanvas,
  Picker,
  RASTER_FROM,
  tiesIn,
  TieRaster,
  toScreen,
  type Scene,
} from '@pebble/core';
import { LegendPart } from '@pebble/contract';
import { whole } from './held';
import { focus, map, size, theme, view } from './looking';

/** Narrower than this the legend would cover the map; the list of groups says the same. */
const NARROW = 720;
/** How much coarser a sketch is, and how many ties it has. */
const COARSE = 0.5;
const SKETCHED = 30_000;
/** Milliseconds without another picture before all ties are painted. */
const REST = 160;

const raster = new TieRaster();
const picture = document.createElement('canvas');
let resting: ReturnType<typeof setTimeout> | undefined;
let picker: Picker | null = null;

/** Paints the map as it is looked at; of very many ties a sketch at once, and all of them a little later. */
export function paint(canvas: HTMLCanvasElement): void {
  clearTimeout(resting);
  picker = null;
  const here = view.value;
  const { width, height } = size.value;
  const ratio = devicePixelRatio;
  canvas.width = Math.round(width * ratio);
  canvas.height = Math.round(height * ratio);
  const pen = canvas.getContext('2d', { alpha: false })!;
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  if (!here) return;
  const scene = sceneNow();
  if (!scene) return;
  const ties = tiesIn(scene);
  if (ties < RASTER_FROM) return paintCanvas(pen, scene);
  const every = Math.max(1, Math.floor(ties / SKETCHED));
  paintCanvas(pen, scene, tiePicture(scene, Math.min(1, ratio) * COARSE, every));
  resting = setTimeout(() => {
    const sharp = tiePicture(scene, Math.min(1, ratio), 1);
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintCanvas(pen, scene, sharp);
  }, REST);
}

function sceneNow(): Scene | null {
  const here = view.value;
  if (!here) return null;
  const { description } = map.value;
  const without = size.value.width < NARROW ? [...LegendPart.options] : description.legend.without;
  return buildScene({
    map: { ...map.value, description: { ...description, legend: { ...description.legend, without } } },
    x: whole.x,
    y: whole.y,
    view: here,
    size: size.value,
    theme: theme.value,
    focus: focus.value,
  });
}

function tiePicture(scene: Scene, ratio: number, every: number): CanvasImageSource {
  const { width, height, rgba } = raster.paint(scene, ratio, { every, screen: devicePixelRatio });
  picture.width = width;
  picture.height = height;
  picture.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  return picture;
}

/** What stands where on the painted map. */
export function pick(): Picker | null {
  const here = view.value;
  if (!here) return null;
  return (picker ??= new Picker(map.value, toScreen({ map: map.value, x: whole.x, y: whole.y, view: here })));
}
