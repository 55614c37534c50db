import type { NodePicture } from '@pebble/contract';

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
