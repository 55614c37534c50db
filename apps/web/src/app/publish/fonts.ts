import type { EmbeddedFont } from '@pebble/core';
import { forkJoin, from, map, type Observable, switchMap } from 'rxjs';

const FILES: readonly (readonly [string, string])[] = [
  ['Atkinson Hyperlegible Next Variable', '/fonts/atkinson-hyperlegible-next-latin-wght-normal.woff2'],
  ['Newsreader Variable', '/fonts/newsreader-latin-wght-normal.woff2'],
];

/** The shipped fonts in base64, to be put into a figure. */
export function loadFonts(): Observable<readonly EmbeddedFont[]> {
  return forkJoin(
    FILES.map(([family, path]) =>
      from(fetch(path)).pipe(
        switchMap((response) => response.arrayBuffer()),
        map((bytes) => ({ family, base64: toBase64(new Uint8Array(bytes)) })),
      ),
    ),
  );
}

function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}
