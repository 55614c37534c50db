import { LINE_HEIGHT, placeNames, type NameWish, type PlacedName } from './labels';
import { calloutLine, type TextBox } from '../notes/calloutLine';
import { mixed, type Theme } from '../../style/palette';
import type { SceneInput } from '../../scene/sceneInput';
import type { ScreenNodes } from '../../scene/screenNodes';
import type { Grip, LineBatch, TextMark } from '../../scene/scene';
import { clipText, textWidth, wrapText, type Face } from '../../style/textWidth';
import { nodeScale } from '../../scene/view';

/** So many picked nodes have a strong ring and a name in any case. */
export const FEW = 14;

const NAMES_IN_FOCUS = 14;
const NAMES_OF_MANY = 40;

/** Names and notes with what belongs to them. */
export interface TextMarks {
  readonly texts: readonly TextMark[];
  readonly leaders: readonly LineBatch[];
  readonly grips: readonly Grip[];
  /** Names for which there was no room. */
  readonly left?: number;
}

/** The names of the first nodes in rank, where they cover nothing and none of the places that are taken; those that were moved by hand stand where they were put. */
export function buildNames(input: SceneInput, nodes: ScreenNodes, taken: readonly TextBox[]): TextMarks {
  const { map, size, theme, view } = input;
  const { fontSize, face, bold, grow, length } = map.description.names;
  const largest = map.description.size.largest * nodeScale(view.scale);
  const faces: readonly [plain: Face, bold: Face] =
    face === 'serif' ? ['serif', 'serifBold'] : ['plain', 'bold'];
  const { chosen, picked: isPicked, first } = namedNodes(input, nodes);
  const moved = new Map(map.description.names.placed.map((one) => [one.node, one]));
  const wishes: NameWish[] = chosen.map((node) => {
    const picked = isPicked(node);
    const isFirst = picked || first.has(node);
    const own = grow ? fontSize * (0.75 + (0.9 * nodes.radius[node]) / Math.max(largest, 1)) : fontSize;
    const letters = isFirst && !grow ? own * 1.12 : own;
    // What a reader picks stands out in any case.
    const isBold = picked || bold === 'all' || (bold === 'first' && isFirst);
    return {
      node,
      text: shortened(map.labels[node], picked ? 'full' : length, letters, faces[isBold ? 1 : 0]),
      x: nodes.x[node],
      y: nodes.y[node],
      radius: nodes.radius[node] + (picked ? 4 : 0),
      size: letters,
      face: faces[isBold ? 1 : 0],
      always: picked,
      put: putOf(moved.get(node), nodes, view.scale),
    };
  });
  const placed = placeNames(wishes, nodes, size, taken);
  return {
    texts: placed.flatMap((name) => linesOf(name, input)),
    leaders: leadersOf(placed, theme),
    grips: placed.map(({ node, box }) => ({
      what: 'name',
      of: node,
      left: box.left,
      top: box.top,
      width: box.right - box.left,
      height: box.bottom - box.top,
    })),
    left: wishes.length - placed.length,
  };
}

/** Nodes whose names stand out. */
const FIRST = 5;

interface NamedNodes {
  /** In the order in which names get their places. */
  readonly chosen: readonly number[];
  /** Whether a node is picked by the reader, one of a few. */
  readonly picked: (node: number) => boolean;
  /** The first ones in rank. */
  readonly first: ReadonlySet<number>;
}

/**
 * Who is named: without a focus the nodes whose names were moved, since the others make room for them, then the largest of each
 * group, where that is wanted, and then the first in rank; a few
 * picked nodes with those of their neighbours that are first in rank; of many picked ones the first in rank.
 */
function namedNodes(input: SceneInput, nodes: ScreenNodes): NamedNodes {
  const { map, focus } = input;
  const { count, placed } = map.description.names;
  if (!focus) {
    const isShown = (v: number): boolean => nodes.radius[v] > 0;
    const moved = count === 0 ? [] : placed.map(({ node }) => node).filter(isShown);
    const own = new Set(moved);
    const wanted = (v: number): boolean => map.pale?.[v] !== 1 && !own.has(v);
    const isSeen = inView(input, nodes);
    const also = map.alsoNamed.nodes.filter((v) => isShown(v) && wanted(v) && isSeen(v));
    also.forEach((v) => own.add(v));
    const ranked = inRank(input, nodes, Math.max(0, count - moved.length), wanted);
    const others = [...also, ...ranked];
    const isNamed = new Set([...moved, ...others]);
    const first = new Set([...map.namesOrder].filter((v) => isNamed.has(v)).slice(0, FIRST));
    return { chosen: [...moved, ...others], picked: () => false, first };
  }
  if (focus.nodes.size > FEW) {
    const chosen = inRank(input, nodes, Math.max(count, NAMES_OF_MANY), (v) => focus.nodes.has(v));
    return { chosen, picked: () => false, first: new Set(chosen.slice(0, FIRST)) };
  }
  const near = inRank(
    input,
    nodes,
    Math.min(NAMES_IN_FOCUS, Math.max(count, 6)),
    (v) => focus.around.has(v) && !focus.nodes.has(v),
  );
  const chosen = [...focus.nodes, ...near];
  return { chosen, picked: (v) => focus.nodes.has(v), first: new Set(chosen.slice(0, FIRST)) };
}

/** The first so many nodes in view by the rank of names. */
function inRank(
  input: SceneInput,
  nodes: ScreenNodes,
  most: number,
  wanted: (node: number) => boolean,
): number[] {
  const chosen: number[] = [];
  const isSeen = inView(input, nodes);
  for (const v of input.map.namesOrder) {
    if (chosen.length >= most) break;
    if (isSeen(v) && wanted(v)) chosen.push(v);
  }
  return chosen;
}

function inView({ size }: SceneInput, { x, y }: ScreenNodes): (node: number) => boolean {
  return (v) => x[v] > -20 && x[v] < size.width + 20 && y[v] > -20 && y[v] < size.height + 20;
}

/** Where a hand put the middle of a name, on the screen. */
function putOf(
  moved: { readonly node: number; readonly dx: number; readonly dy: number } | undefined,
  { x, y }: ScreenNodes,
  scale: number,
): { x: number; y: number } | null {
  return moved ? { x: x[moved.node] + moved.dx * scale, y: y[moved.node] + moved.dy * scale } : null;
}

/** A name farther than this from the rim of its node has a line that leads to it, in pixels. */
const FAR = 14;

function leadersOf(placed: readonly PlacedName[], theme: Theme): LineBatch[] {
  const points = placed
    .filter(({ put }) => put !== null)
    .flatMap((name) => calloutLine(name.box, name.x, name.y, name.radius, FAR));
  return points.length === 0
    ? []
    : [{ stroke: theme.soft, alpha: 0.8, width: 0.8, points: Float32Array.from(points) }];
}

function linesOf(name: PlacedName, { map, theme }: SceneInput): TextMark[] {
  const { ink, behind } = map.description.names;
  const own = ink === 'node' ? mixed(map.colours[map.colour[name.node]], theme.ink) : theme.ink;
  return name.text.map((text, line) => ({
    text,
    x: name.left + name.width / 2,
    y: name.base + line * name.size * LINE_HEIGHT,
    size: name.size,
    face: name.face,
    anchor: 'middle' as const,
    fill: name.always ? theme.mark : own,
    halo: behind === 'halo' ? theme.ground : null,
    box: behind === 'box' ? theme.ground : null,
    alpha: 1,
  }));
}

/** Longest name in pixels for each pixel of its letters, where names are shortened. */
const SHORT = 8;

/** The lines of a name: as it is (very long ones cut), shortened, or broken in two where it can be. */
function shortened(
  label: string,
  length: 'full' | 'short' | 'two lines',
  size: number,
  face: Face,
): readonly string[] {
  switch (length) {
    case 'full':
      return [clipText(label, size, face, 4 * SHORT * size)];
    case 'short':
      return [clipText(label, size, face, SHORT * size)];
    case 'two lines': {
      const lines = wrapText(label, size, face, Math.max(textWidth(label, size, face) * 0.6, 5 * size));
      const [first, ...more] = lines;
      const last = more.join(' ');
      return (last === '' ? [first] : [first, last]).map((line) =>
        clipText(line, size, face, 2 * SHORT * size),
      );
    }
  }
}
