import type { SceneInput } from '../../scene/sceneInput';
import type { TextMark } from '../../scene/scene';
import { textWidth, wrapText } from '../../style/textWidth';

const TITLE = 15;
const NOTE = 12.5;
const NOTE_LINE = 16;
const NOTE_WIDTH = 200;
/** A picture that is lower, in pixels, has no room for notes of outlines. */
const LOW = 300;

/** What is written at an outline; either may be empty. */
export interface RegionWords {
  readonly title: string;
  readonly note: string;
}

/** A place where other words stand, in pixels; x is its middle. */
export interface TakenPlace {
  readonly x: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The title of an outline, and its note below it in lines of a bearable length: above the highest point of the outline, or farther down
 * where others stand there. On a low picture notes are left out, and titles that have no place in it.
 * @param taken to which its place is added
 */
export function wordsAbove(
  { title, note }: RegionWords,
  [atX, atY]: readonly [number, number],
  { theme, size }: SceneInput,
  taken: TakenPlace[],
): TextMark[] {
  const rows = [
    ...(title ? [{ text: title, size: TITLE, face: 'serifBold' as const, height: TITLE + 3 }] : []),
    ...wrapText(size.height < LOW ? '' : note, NOTE, 'serif', NOTE_WIDTH)
      .filter((text) => text !== '')
      .map((text) => ({ text, size: NOTE, face: 'serif' as const, height: NOTE_LINE })),
  ];
  if (rows.length === 0) return [];
  const width = Math.max(...rows.map((row) => textWidth(row.text, row.size, row.face)));
  const height = rows.reduce((sum, row) => sum + row.height, 0);
  const x = Math.max(width / 2 + 6, Math.min(size.width - width / 2 - 6, atX));
  let top = Math.max(4, atY - 3 - height);
  const covers = (box: TakenPlace): boolean =>
    top < box.top + box.height && box.top < top + height && Math.abs(box.x - x) < (box.width + width) / 2;
  while (taken.some(covers)) top += TITLE + 4;
  if (top + height > size.height) return [];
  taken.push({ x, top, width, height });
  let y = top;
  return rows.map((row) => {
    y += row.height;
    return {
      text: row.text,
      x,
      y: y - 3,
      size: row.size,
      face: row.face,
      anchor: 'middle' as const,
      fill: theme.ink,
      halo: theme.ground,
      alpha: 1,
    };
  });
}
