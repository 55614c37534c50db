import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Letters } from '@pebble/core';
import { fontParts, letterShapes, partsFor, type FontPart, type Written } from '@pebble/core/letters';

/** The packages of the fonts that ship with the application, in the order in which characters are looked for. */
const PACKAGES: readonly (readonly [name: string, weights: readonly number[]])[] = [
  ['atkinson-hyperlegible-next', [400, 600]],
  ['newsreader', [400, 600]],
  ['noto-sans', [400]],
  ['noto-sans-arabic', [400]],
  ['noto-sans-hebrew', [400]],
  ['noto-sans-sc', [400]],
  ['noto-emoji', [400]],
];

let known: readonly FontPart[] | null = null;

/** Draws some texts as shapes, with the fonts that they need. */
export function lettersFor(texts: readonly Written[]): Promise<Letters> {
  known ??= PACKAGES.flatMap(([name, weights]) => weights.flatMap((weight) => partsIn(name, weight)));
  return letterShapes(partsFor(known, texts).map((part) => ({ part, bytes: readFileSync(part.address) })));
}

function partsIn(name: string, weight: number): FontPart[] {
  const sheet = createRequire(import.meta.url).resolve(`@fontsource/${name}/${weight}.css`);
  return fontParts(readFileSync(sheet, 'utf8')).map((part) => ({
    ...part,
    address: join(dirname(sheet), part.address),
  }));
}
