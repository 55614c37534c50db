import { isInRange, type EmbeddedFont } from '@pebble/core';
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

/** The further fonts that ship, by the characters for which they are. */
interface FontFile {
  readonly family: string;
  readonly address: string;
  readonly range: string;
}

/** Those of the further fonts that some texts need: other scripts, and emoji. */
export async function loadFurtherFonts(texts: readonly string[]): Promise<readonly EmbeddedFont[]> {
  const characters = new Set<number>();
  for (const text of texts)
    for (const character of text) if (character > '\u007f') characters.add(character.codePointAt(0)!);
  if (characters.size === 0) return [];
  const needed = furtherFonts().filter(({ range }) => [...characters].some((one) => isInRange(one, range)));
  return Promise.all(
    needed.map(async ({ family, address, range }) => {
      const bytes = await (await fetch(address)).arrayBuffer();
      return { family, range, base64: toBase64(new Uint8Array(bytes)) };
    }),
  );
}

/** What the style sheet of the further fonts says. */
function furtherFonts(): FontFile[] {
  const sheet = [...document.styleSheets].find(({ href }) => href?.endsWith('/fonts/further.css'));
  return [...(sheet?.cssRules ?? [])]
    .filter((rule) => rule instanceof CSSFontFaceRule)
    .map(({ style }) => ({
      family: style.getPropertyValue('font-family').replaceAll('"', ''),
      address: /url\("?([^")]+)"?\)/.exec(style.getPropertyValue('src'))?.[1] ?? '',
      range: style.getPropertyValue('unicode-range'),
    }))
    .filter(({ address }) => address !== '');
}

function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}
