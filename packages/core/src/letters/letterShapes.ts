import type { Font } from 'fontkit';
import type { LetterPiece, Letters, LetterShape } from '../map/style/letters';
import type { Face } from '../map/style/textWidth';
import { isInRange } from '../map/style/fonts';
import { isOf, type FontPart } from './fontParts';
import { visualRuns } from './runs';

/** A part of a font that was read. */
export interface LoadedPart {
  readonly part: FontPart;
  /** The file in WOFF2. */
  readonly bytes: Uint8Array;
}

interface OpenPart {
  readonly part: FontPart;
  readonly font: Font;
}

/**
 * Draws texts as shapes by the fontkit library, which reads the fonts and joins letters as their scripts ask for. A character that no part
 * has is drawn as the font's own sign for what it lacks.
 * Throws an Error when a file is no font.
 */
export async function letterShapes(loaded: readonly LoadedPart[]): Promise<Letters> {
  // Read when it is needed first: it is as large as all else of a thread.
  const { create } = await import('fontkit');
  const open = loaded.map(({ part, bytes }): OpenPart => ({ part, font: create(bytes as Buffer) as Font }));
  const known = new Map<string, LetterShape>();
  return ({ text, face, size }) => {
    const key = `${face} ${size} ${text}`;
    let shape = known.get(key);
    if (!shape) known.set(key, (shape = draw(open, text, face, size)));
    return shape;
  };
}

function draw(open: readonly OpenPart[], text: string, face: Face, size: number): LetterShape {
  let d = '';
  let x = 0;
  const written: LetterPiece[] = [];
  for (const { text: run, isRightToLeft } of visualRuns(text)) {
    const pieces = byFont(open, run, face);
    for (const { part, font, text: piece } of isRightToLeft ? pieces.reverse() : pieces) {
      written.push({ font: part.address, text: piece, x });
      const scale = size / font.unitsPerEm;
      const direction = isRightToLeft ? 'rtl' : 'ltr';
      const { glyphs, positions } = font.layout(piece, undefined, undefined, undefined, direction);
      glyphs.forEach((glyph, i) => {
        const { xAdvance, xOffset, yOffset } = positions[i];
        d += outline(glyph.path.commands, scale, x + xOffset * scale, -yOffset * scale);
        x += xAdvance * scale;
      });
    }
  }
  return { d, width: x, pieces: written };
}

/** A text in stretches for each of which one font has the characters. */
function byFont(open: readonly OpenPart[], text: string, face: Face): (OpenPart & { text: string })[] {
  const pieces: (OpenPart & { text: string })[] = [];
  const own = open.filter(({ part }) => isOf(part, face));
  for (const character of text) {
    const code = character.codePointAt(0)!;
    const has = ({ part, font }: OpenPart): boolean =>
      isInRange(code, part.range) && font.hasGlyphForCodePoint(code);
    const last = pieces.at(-1);
    const one = own.find(has) ?? own.at(0);
    if (!one) continue;
    if (last && last.font === one.font) last.text += character;
    else pieces.push({ ...one, text: character });
  }
  return pieces;
}

const SIGN: Readonly<Record<string, string>> = {
  moveTo: 'M',
  lineTo: 'L',
  quadraticCurveTo: 'Q',
  bezierCurveTo: 'C',
  closePath: 'Z',
};

/** A glyph as a path, its y growing downwards, with at most two decimals. */
function outline(
  commands: readonly { readonly command: string; readonly args: readonly number[] }[],
  scale: number,
  left: number,
  up: number,
): string {
  const round = (value: number): number => Math.round(value * 100) / 100;
  return commands
    .map(({ command, args }) => {
      const points = args.map((value, i) => round(i % 2 === 0 ? left + value * scale : up - value * scale));
      return SIGN[command] + points.join(' ');
    })
    .join('');
}
