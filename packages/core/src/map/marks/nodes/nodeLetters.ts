import { nodeLabels } from '../../../network/tables';
import { contrast } from '../../style/palette';
import type { PreparedMap } from '../../scene/prepare';
import type { TextMark } from '../../scene/scene';
import type { ScreenNodes } from '../../scene/screenNodes';
import { textWidth } from '../../style/textWidth';

/** A node that is smaller on the screen, in pixels, has no letters: they could not be read. */
const SMALLEST = 6;
/** Of the width of a node, how much letters may take. */
const INSIDE = 1.5;
const INKS = ['#FFFFFF', '#1E2A32'] as const;

/**
 * What is written inside of nodes: initials of their names, or the first two signs of a column, which may be emoji: small pictures for what
 * a node is. In white or ink, by what is read better on the colour of the node (contrast by WCAG 2.2).
 */
export function buildLetters(
  nodes: Iterable<number>,
  map: PreparedMap,
  { x, y, radius }: ScreenNodes,
): TextMark[] {
  const { letters } = map.description.shape;
  if (letters === null || map.pies) return [];
  const signOf = signs(map, letters);
  const marks: TextMark[] = [];
  for (const v of nodes) {
    if (radius[v] < SMALLEST || map.pictures?.has(v)) continue;
    const text = signOf(v);
    if (text === '') continue;
    const one = textWidth(text, 1, 'bold');
    const size = Math.min(radius[v] * 1.1, (INSIDE * radius[v]) / Math.max(one, 0.1));
    const fill = map.colours[map.colour[v]];
    marks.push({
      text,
      x: x[v],
      y: y[v] + size * 0.35,
      size,
      face: 'bold',
      anchor: 'middle',
      fill: INKS.reduce((best, ink) => (contrast(ink, fill) > contrast(best, fill) ? ink : best)),
      halo: null,
      alpha: 1,
    });
  }
  return marks;
}

function signs({ network: { nodes } }: PreparedMap, letters: string): (node: number) => string {
  const labels = nodeLabels(nodes);
  if (letters === 'initials') return (v) => initialsOf(labels[v]);
  const column = nodes[letters];
  if (!Array.isArray(column)) return () => '';
  return (v) => firstSigns(column[v] as string);
}

/** "LP" of "lamp_planner", "N" of "nightbus14"; the first sign where there are no letters. */
export function initialsOf(name: string): string {
  const words = name.match(/\p{L}[\p{L}\p{M}]*/gu) ?? [];
  if (words.length === 0) return firstSigns(name, 1);
  return words
    .slice(0, 2)
    .map((word) => upper(Array.from(word)[0]))
    .join('');
}

/** The capital of a letter; itself where that would be two. */
function upper(letter: string): string {
  const capital = letter.toUpperCase();
  return Array.from(capital).length === 1 ? capital : letter;
}

/** The first signs as a reader counts them: an emoji of several parts is one. */
function firstSigns(text: string, count = 2): string {
  const signs = text
    .trim()
    .match(/\p{RI}\p{RI}|\p{Emoji}(\p{EMod}|\uFE0F)?(\u200D\p{Emoji}(\p{EMod}|\uFE0F)?)*|\P{M}\p{M}*/gu);
  const taken = (signs ?? []).slice(0, count);
  return taken.some((sign) => /\p{Extended_Pictographic}/u.test(sign)) ? taken[0] : taken.join('');
}
