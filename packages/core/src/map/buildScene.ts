import { NodeShape } from '@pebble/contract';
import { LINE_HEIGHT, placeNames, type NameWish } from './labels';
import { buildLegend } from './legend';
import { buildRegions } from './regions';
import type { SceneInput, ScreenNodes } from './sceneInput';
import type { DiscBatch, Ring, Scene, TextMark } from './scene';
import { buildTies } from './ties';
import { clipText, textWidth, wrapText, type Face } from './textWidth';
import { nodeScale } from './view';

const FADED = 0.16;
/** Marks the batches of nodes that are not faded; below stand shape and colour. */
const CLEAR = 0x10000;

/** Turns a prepared map, positions and a view into a picture. The same input gives the same picture everywhere. */
export function buildScene(input: SceneInput): Scene {
  const nodes = toScreen(input);
  const ties = buildTies(input, nodes);
  const { regions, titles } = buildRegions(input, nodes);
  return {
    width: input.size.width,
    height: input.size.height,
    ground: input.theme.ground,
    regions,
    ...ties,
    discs: buildDiscs(input, nodes),
    rings: buildRings(input, nodes),
    texts: [...buildNames(input, nodes), ...titles],
    legend: buildLegend(input.map, input.theme, input.size, input.view.scale),
  };
}

export function toScreen({ map, x, y, view }: Pick<SceneInput, 'map' | 'x' | 'y' | 'view'>): ScreenNodes {
  const n = map.network.nodeCount;
  const screen = { x: new Float32Array(n), y: new Float32Array(n), radius: new Float32Array(n) };
  const grown = nodeScale(view.scale);
  for (const v of map.nodes) {
    screen.x[v] = x[v] * view.scale + view.x;
    screen.y[v] = y[v] * view.scale + view.y;
    screen.radius[v] = Math.max(0.8, map.radius[v] * grown);
  }
  return screen;
}

/** Discs by colour, the smaller over the larger; faded ones beneath clear ones. */
function buildDiscs({ map, size, theme, focus, view }: SceneInput, nodes: ScreenNodes): DiscBatch[] {
  const isClear = (v: number): boolean =>
    focus === null ? map.pale?.[v] !== 1 : focus.nodes.has(v) || focus.around.has(v);
  const batches = new Map<number, number[]>();
  for (const v of map.paintOrder) {
    const r = nodes.radius[v];
    const outside =
      nodes.x[v] + r < 0 || nodes.x[v] - r > size.width || nodes.y[v] + r < 0 || nodes.y[v] - r > size.height;
    if (outside) continue;
    const key = (isClear(v) ? CLEAR : 0) + (map.shape?.[v] ?? 0) * 256 + map.colour[v];
    const list = batches.get(key) ?? [];
    list.push(nodes.x[v], nodes.y[v], r);
    batches.set(key, list);
  }
  return [...batches]
    .sort(([a], [b]) => Number(a >= CLEAR) - Number(b >= CLEAR))
    .map(([key, list]) => ({
      shape: NodeShape.options[(key % CLEAR) >> 8],
      fill: map.colours[key & 255],
      alpha: key >= CLEAR ? 0.94 : FADED,
      rim: theme.ground,
      // A rim on the dots of a far view would be all that one sees of them.
      rimWidth: view.scale < 0.6 ? 0 : 0.9,
      discs: Float32Array.from(list),
    }));
}

function buildRings({ focus, theme }: SceneInput, nodes: ScreenNodes): Ring[] {
  if (!focus) return [];
  return [...focus.nodes]
    .filter((v) => nodes.radius[v] > 0)
    .map((v) => ({
      x: nodes.x[v],
      y: nodes.y[v],
      radius: nodes.radius[v] + 3.5,
      stroke: theme.mark,
      width: 2.2,
    }));
}

const NAMES_IN_FOCUS = 14;

function buildNames(input: SceneInput, nodes: ScreenNodes): TextMark[] {
  const { map, focus, size, theme, view } = input;
  const { count, fontSize, face, grow, length } = map.description.names;
  const largest = map.description.size.largest * nodeScale(view.scale);
  const faces: readonly [plain: Face, bold: Face] =
    face === 'serif' ? ['serif', 'serifBold'] : ['plain', 'bold'];
  const inView = (v: number): boolean =>
    nodes.x[v] > -20 && nodes.x[v] < size.width + 20 && nodes.y[v] > -20 && nodes.y[v] < size.height + 20;
  const chosen: number[] = focus ? [...focus.nodes] : [];
  const limit = focus ? chosen.length + Math.min(NAMES_IN_FOCUS, Math.max(count, 6)) : count;
  for (const v of map.namesOrder) {
    if (chosen.length >= limit) break;
    if (map.pale?.[v] === 1 && !focus) continue;
    if (!inView(v) || (focus && (!focus.around.has(v) || focus.nodes.has(v)))) continue;
    chosen.push(v);
  }
  const wishes: NameWish[] = chosen.map((node, rank) => {
    const picked = focus?.nodes.has(node) ?? false;
    const isFirst = picked || rank < 5;
    const own = grow ? fontSize * (0.75 + (0.9 * nodes.radius[node]) / Math.max(largest, 1)) : fontSize;
    const letters = isFirst && !grow ? own * 1.12 : own;
    return {
      node,
      text: shortened(map.labels[node], picked ? 'full' : length, letters, faces[isFirst ? 1 : 0]),
      x: nodes.x[node],
      y: nodes.y[node],
      radius: nodes.radius[node] + (picked ? 4 : 0),
      size: letters,
      face: faces[isFirst ? 1 : 0],
      always: picked,
    };
  });
  return placeNames(wishes, nodes, size).flatMap((name) =>
    name.text.map((text, line) => ({
      text,
      x: name.left + name.width / 2,
      y: name.base + line * name.size * LINE_HEIGHT,
      size: name.size,
      face: name.face,
      anchor: 'middle' as const,
      fill: name.always ? theme.mark : theme.ink,
      halo: theme.ground,
      alpha: 1,
    })),
  );
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
