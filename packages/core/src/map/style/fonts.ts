import type { Face } from './textWidth';

/** For scripts that the two typefaces lack, and for emoji. */
const FURTHER = `"Noto Sans","Noto Sans Arabic","Noto Sans Hebrew","Noto Sans SC","Noto Emoji"`;
const SANS = `"Atkinson Hyperlegible Next Variable","Atkinson Hyperlegible Next",${FURTHER},sans-serif`;
const SERIF = `"Newsreader Variable","Newsreader",${FURTHER},serif`;

export const FONT_STACK: Readonly<Record<Face, string>> = {
  plain: SANS,
  bold: SANS,
  serif: SERIF,
  serifBold: SERIF,
};

export function fontWeight(face: Face): number {
  return face === 'bold' || face === 'serifBold' ? 600 : 400;
}

/** A font file to be put inside an SVG figure, so that it looks the same elsewhere. */
export interface EmbeddedFont {
  readonly family: string;
  /** The WOFF2 file in base64. */
  readonly base64: string;
  /** The characters for which it is, in the form of the CSS property unicode-range; all where it is left out. */
  readonly range?: string;
}

export function fontFaceRule({ family, base64, range }: EmbeddedFont): string {
  const only = range ? `unicode-range:${range};` : '';
  return `@font-face{font-family:"${family}";font-weight:${range ? 400 : '200 800'};${only}src:url(data:font/woff2;base64,${base64}) format("woff2")}`;
}

/** Whether a character lies in the ranges of a CSS unicode-range: "U+0400-045F, U+2116". */
export function isInRange(character: number, range: string): boolean {
  return range.split(',').some((part) => {
    const [, first, last] = /U\+([0-9A-F?]+)(?:-([0-9A-F]+))?/i.exec(part.trim()) ?? [];
    if (first === undefined) return false;
    const from = parseInt(first.replaceAll('?', '0'), 16);
    const until = parseInt(last ?? first.replaceAll('?', 'F'), 16);
    return character >= from && character <= until;
  });
}
