import type { Face } from './textWidth';

const SANS = `"Atkinson Hyperlegible Next Variable","Atkinson Hyperlegible Next",sans-serif`;
const SERIF = `"Newsreader Variable","Newsreader",serif`;

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
}

export function fontFaceRule({ family, base64 }: EmbeddedFont): string {
  return `@font-face{font-family:"${family}";font-weight:200 800;src:url(data:font/woff2;base64,${base64}) format("woff2")}`;
}
