import { NodeShape, type NodePicture } from '@pebble/contract';
import type { PreparedMap } from './prepare';
import type { NodePictureMark } from './scene';
import type { ScreenNodes } from './sceneInput';

/** A node that is smaller on the screen, in pixels, shows its colour alone: its picture could not be made out. */
const SMALLEST = 5;
/** So much of a node its picture takes; the rest stays as a rim in its colour. */
const INSIDE = 0.84;

/** How a name is compared: without regard to capitals, blanks around it and a sign before it. */
export function pictureKey(name: string): string {
  return name.normalize('NFC').trim().toLocaleLowerCase('en').replace(/^[@#]/, '');
}

/** Pictures by node: each node gets the one of its name. */
export function picturesByNode(
  labels: readonly string[],
  pictures: readonly NodePicture[],
): ReadonlyMap<number, string> {
  const byKey = new Map(pictures.map(({ name, image }) => [pictureKey(name), image]));
  const found = new Map<number, string>();
  if (byKey.size === 0) return found;
  labels.forEach((label, v) => {
    const image = byKey.get(pictureKey(label));
    if (image !== undefined) found.set(v, image);
  });
  return found;
}

/** The names of pictures that no node has. */
export function unusedPictures(labels: readonly string[], pictures: readonly NodePicture[]): string[] {
  const keys = new Set(labels.map(pictureKey));
  return pictures.map(({ name }) => name).filter((name) => !keys.has(pictureKey(name)));
}

/** The pictures inside of nodes that are large enough, in the shape of the node. */
export function buildPictures(
  nodes: Iterable<number>,
  { pictures, shape }: PreparedMap,
  { x, y, radius }: ScreenNodes,
): NodePictureMark[] {
  if (!pictures) return [];
  const marks: NodePictureMark[] = [];
  for (const v of nodes) {
    const image = pictures.get(v);
    if (image === undefined || radius[v] < SMALLEST) continue;
    marks.push({
      image,
      x: x[v],
      y: y[v],
      radius: radius[v] * INSIDE,
      shape: NodeShape.options[shape?.[v] ?? 0],
    });
  }
  return marks;
}
