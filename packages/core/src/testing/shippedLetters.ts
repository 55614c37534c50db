import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fontParts, partsFor, type FontPart, type Written } from '../letters/fontParts';
import { letterShapes } from '../letters/letterShapes';
import type { Letters } from '../map/style/letters';

/** What the style sheets of the fonts' packages say, with the places of their files. */
export function shippedParts(): FontPart[] {
  return [
    ['atkinson-hyperlegible-next', 400],
    ['atkinson-hyperlegible-next', 600],
    ['newsreader', 400],
    ['newsreader', 600],
    ['noto-sans', 400],
    ['noto-sans-arabic', 400],
    ['noto-sans-hebrew', 400],
    ['noto-sans-sc', 400],
    ['noto-emoji', 400],
  ].flatMap(([name, weight]) => {
    const sheet = require.resolve(`@fontsource/${name}/${weight}.css`);
    return fontParts(readFileSync(sheet, 'utf8')).map((part) => ({
      ...part,
      address: join(dirname(sheet), part.address),
    }));
  });
}

/** The letters of the fonts that ship with the application. */
export function lettersFor(texts: readonly Written[]): Promise<Letters> {
  const parts = partsFor(shippedParts(), texts);
  return letterShapes(parts.map((part) => ({ part, bytes: readFileSync(part.address) })));
}
