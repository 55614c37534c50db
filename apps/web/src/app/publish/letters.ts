import type { Letters } from '@pebble/core';
import type { Written } from '@pebble/core/letters';

/** What the style sheet says of the fonts whose letters are drawn as shapes. */
let sheet: Promise<string> | null = null;
const files = new Map<string, Promise<Uint8Array>>();

/** Draws some texts as shapes; the code that reads fonts, and the files, are fetched when they are needed first. */
export async function loadLetters(texts: readonly Written[]): Promise<Letters> {
  const { fontParts, letterShapes, partsFor } = await import('@pebble/core/letters');
  sheet ??= fetch('/fonts/letters.css').then((response) => response.text());
  const parts = partsFor(fontParts(await sheet), texts);
  return letterShapes(
    await Promise.all(parts.map(async (part) => ({ part, bytes: await fontFile(part.address) }))),
  );
}

/** A file of a font, once. */
export function fontFile(address: string): Promise<Uint8Array> {
  let file = files.get(address);
  if (!file) {
    file = fetch(address).then(async (response) => new Uint8Array(await response.arrayBuffer()));
    files.set(address, file);
  }
  return file;
}
