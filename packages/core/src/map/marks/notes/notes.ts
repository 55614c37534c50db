import type { Note } from '@pebble/contract';
import { calloutLine } from './calloutLine';
import type { TextMarks } from '../names/names';
import { numbersOf } from '../../../network/tables';
import type { PreparedMap } from '../../scene/prepare';
import type { SceneInput } from '../../scene/sceneInput';
import type { ScreenNodes } from '../../scene/screenNodes';
import type { Grip, LineBatch, TextMark } from '../../scene/scene';
import { textWidth, wrapText } from '../../style/textWidth';
import { middleOfTie, routesOf, wayOfTie } from '../ties/tieRoutes';

const SIZE = 13.5;
const LINE = 17;
const WIDTH = 190;
const NEAR = 3;

/** Notes with a line that leads from each to what it speaks of; those on what is not shown are left out. */
export function buildNotes(input: SceneInput, nodes: ScreenNodes): TextMarks {
  const { map, theme, view } = input;
  const { notes } = map.description;
  const texts: TextMark[] = [];
  const grips: Grip[] = [];
  const points: number[] = [];
  notes.forEach((note, of) => {
    const place = placeOf(note, input, nodes);
    if (!place) return;
    const lines = wrapText(note.text, SIZE, 'serif', WIDTH);
    const width = Math.max(...lines.map((line) => textWidth(line, SIZE, 'serif')));
    const height = lines.length * LINE;
    const left = place.x + note.dx * view.scale - width / 2;
    const top = place.y + note.dy * view.scale - height / 2;
    const box = { left: left - 4, top: top - 1, right: left + width + 4, bottom: top + height + 1 };
    grips.push({ what: 'note', of, left: box.left, top: box.top, width: width + 8, height: height + 2 });
    points.push(...calloutLine(box, place.x, place.y, place.radius, NEAR));
    lines.forEach((text, i) =>
      texts.push({
        text,
        x: left,
        y: top + i * LINE + SIZE * 0.95,
        size: SIZE,
        face: 'serif',
        anchor: 'start',
        fill: theme.ink,
        halo: theme.ground,
        alpha: 1,
      }),
    );
  });
  const leaders: LineBatch[] =
    points.length === 0
      ? []
      : [{ stroke: theme.ink, alpha: 0.7, width: 0.9, points: Float32Array.from(points) }];
  return { texts, leaders, grips };
}

/** Where on the screen the thing is of which a note speaks; null where it is not shown. */
function placeOf(
  { at }: Note,
  { map }: SceneInput,
  nodes: ScreenNodes,
): { x: number; y: number; radius: number } | null {
  const { x, y, radius } = nodes;
  if (at.what === 'node')
    return radius[at.node] > 0 ? { x: x[at.node], y: y[at.node], radius: radius[at.node] } : null;
  const { source: a, target: b } = at;
  if (!(radius[a] > 0 && radius[b] > 0)) return null;
  const [atX, atY] = middleOfTie(routesOf(map, nodes), nodes, edgeOf(map, a, b), a, b, wayOfTie());
  return { x: atX, y: atY, radius: 0 };
}

/** The tie from one node to another, where its route depends on more than its ends; -1 where it does not, or there is none. */
function edgeOf({ courses, network: { edges } }: PreparedMap, a: number, b: number): number {
  if (!courses) return -1;
  const target = numbersOf(edges, 'target');
  return Array.from(numbersOf(edges, 'source')).findIndex((from, e) => from === a && target[e] === b);
}
