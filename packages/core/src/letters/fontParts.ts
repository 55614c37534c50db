import { fontWeight, isInRange } from '../map/style/fonts';
import type { Face } from '../map/style/textWidth';

/** A file with some characters of a font. */
export interface FontPart {
  readonly family: string;
  readonly weight: number;
  /** Where the file is, as the style sheet says. */
  readonly address: string;
  /** The characters for which it is, in the form of the CSS property unicode-range. */
  readonly range: string;
}

/** A text and how it is written. */
export interface Written {
  readonly text: string;
  readonly face: Face;
}

const FAMILY: Readonly<Record<Face, string>> = {
  plain: 'Atkinson Hyperlegible Next',
  bold: 'Atkinson Hyperlegible Next',
  serif: 'Newsreader',
  serifBold: 'Newsreader',
};
const FAMILIES = new Set(Object.values(FAMILY));

/** The font files that a style sheet names by @font-face rules, those in WOFF2. */
export function fontParts(css: string): FontPart[] {
  return [...css.matchAll(/@font-face\s*\{([^}]*)\}/g)].flatMap(([, rule]) => {
    const value = (name: string): string => new RegExp(`${name}:\\s*([^;]+);`).exec(rule)?.[1].trim() ?? '';
    const address = /url\(['"]?([^'")]+\.woff2)['"]?\)/.exec(value('src'))?.[1];
    const family = value('font-family').replaceAll(/['"]/g, '');
    return address === undefined
      ? []
      : [{ family, weight: Number(value('font-weight')), address, range: value('unicode-range') }];
  });
}

/** Whether a face may take characters from a part: its own family by weight, or a further one, which have one weight. */
export function isOf({ family, weight }: FontPart, face: Face): boolean {
  return FAMILIES.has(family) ? family === FAMILY[face] && weight === fontWeight(face) : true;
}

/** The parts that some texts need: for each character those that may have it. The letters of English are in the face's own. */
export function partsFor(all: readonly FontPart[], texts: readonly Written[]): FontPart[] {
  const needed = new Set<FontPart>();
  const seen = new Set<string>();
  for (const { text, face } of texts)
    for (const character of text) {
      const key = `${face} ${character}`;
      if (seen.has(key)) continue;
      seen.add(key);
      const code = character.codePointAt(0)!;
      const having = all.filter((part) => isOf(part, face) && isInRange(code, part.range));
      for (const part of code < 128 ? having.slice(0, 1) : having) needed.add(part);
    }
  return all.filter((part) => needed.has(part));
}
