import { ADVANCE } from './glyphWidths';

export type Face = keyof typeof ADVANCE;

const WIDE =
  /[\u1100-\u115f\u2e80-\ua4cf\uac00-\ud7a3\uf900-\ufaff\ufe30-\ufe4f\uff00-\uff60]|\p{Extended_Pictographic}/u;
const NO_WIDTH = /[\p{Mn}\u200b-\u200f\u2066-\u2069\ufe0f]/u;

/**
 * Width of a text in pixels by the shipped fonts' own tables, so that names are placed alike in the browser, on the server
 * and in a script. Characters outside the table count as the letter they are built on, or as a middling width.
 */
export function textWidth(text: string, size: number, face: Face): number {
  const table = ADVANCE[face];
  let sum = 0;
  for (const character of text) sum += advance(character, table);
  return (sum * size) / 1000;
}

function advance(character: string, table: readonly number[]): number {
  const code = character.charCodeAt(0);
  if (code >= 32 && code < 127) return table[code - 32];
  if (NO_WIDTH.test(character)) return 0;
  const plain = character.normalize('NFD').charCodeAt(0);
  if (plain >= 32 && plain < 127) return table[plain - 32];
  return WIDE.test(character) ? 1000 : 580;
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/;

/**
 * A text that stands within another one, set apart where it is written from right to left, so that what follows stays where it is (isolates of
 * the Unicode Bidirectional Algorithm, UAX #9).
 */
export function isolated(text: string): string {
  return RIGHT_TO_LEFT.test(text) ? `\u2068${text}\u2069` : text;
}

/** Breaks a text at spaces into lines of at most this width; a longer word stands alone. */
export function wrapText(text: string, size: number, face: Face, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line !== '' && textWidth(longer, size, face) > width) {
      lines.push(line);
      line = word;
    } else {
      line = longer;
    }
  }
  return line === '' ? lines : [...lines, line];
}

/** Breaks a text into lines of at most this width: at spaces, and a longer word behind a mark, or where it has to be. */
export function breakText(text: string, size: number, face: Face, width: number): string[] {
  return wrapText(text, size, face, width).flatMap((line) => breakWord(line, size, face, width));
}

/** Marks behind which a word is broken rather than between two letters. */
const MARKS = /[_\-./+·,@#]/;

function breakWord(word: string, size: number, face: Face, width: number): string[] {
  if (textWidth(word, size, face) <= width) return [word];
  const signs = [...word];
  let most = 1;
  while (most < signs.length && textWidth(signs.slice(0, most + 1).join(''), size, face) <= width) most++;
  let at = most;
  while (at > most / 2 && !MARKS.test(signs[at - 1])) at--;
  if (at <= most / 2) at = most;
  return [signs.slice(0, at).join(''), ...breakWord(signs.slice(at).join(''), size, face, width)];
}

/**
 * Cuts texts so that each fits a width. Those that would read the same when they are cut keep what tells them apart: an ellipsis then stands
 * for what they share, or a number follows where nothing else is left.
 */
export function clipApart(texts: readonly string[], size: number, face: Face, width: number): string[] {
  const clipped = texts.map((text) => clipText(text, size, face, width));
  const alike = new Map<string, number[]>();
  clipped.forEach((text, i) => alike.set(text, [...(alike.get(text) ?? []), i]));
  for (const places of alike.values()) {
    if (new Set(places.map((i) => texts[i])).size < 2) continue;
    const shared = sharedStart(places.map((i) => [...texts[i]]));
    const apart = places.map((i) => clipMiddle([...texts[i]], shared, size, face, width));
    places.forEach((i, at) => {
      const again = apart.slice(0, at).filter((one) => one === apart[at]).length;
      clipped[i] =
        again === 0 ? apart[at] : `${clipText(apart[at], size, face, width - 3 * size)} (${again + 1})`;
    });
  }
  return clipped;
}

/** So many characters all have in common at their beginning. */
function sharedStart(texts: readonly (readonly string[])[]): number {
  let shared = 0;
  while (texts.every((text) => shared < text.length && text[shared] === texts[0][shared])) shared++;
  return shared;
}

/** "wall lamps of the …northern quay": the beginning, and what stands from a place on. */
function clipMiddle(text: readonly string[], from: number, size: number, face: Face, width: number): string {
  const end = clipText(text.slice(Math.max(0, from - 2)).join(''), size, face, width * 0.6);
  const start = [...text].slice(0, from);
  const joined = (): string => `${start.join('').trimEnd()}…${end}`;
  while (start.length > 1 && textWidth(joined(), size, face) > width) start.pop();
  return joined();
}

/** Cuts a text so that it fits a width, with an ellipsis where something was cut. */
export function clipText(text: string, size: number, face: Face, width: number): string {
  if (textWidth(text, size, face) <= width) return text;
  const characters = [...text];
  while (characters.length > 1 && textWidth(`${characters.join('')}…`, size, face) > width) characters.pop();
  return `${characters.join('')}…`;
}
