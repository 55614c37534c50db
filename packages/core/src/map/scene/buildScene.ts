import { NodeShape } from '@pebble/contract';
import { buildLegend } from '../marks/legend/legend';
import { buildNames, FEW } from '../marks/names/names';
import { buildLetters } from '../marks/nodes/nodeLetters';
import { buildPictures } from '../marks/nodes/nodePictures';
import { buildNotes } from '../marks/notes/notes';
import { buildPies } from '../marks/nodes/pies';
import { buildRegions } from '../marks/regions/regions';
import { RIM_WIDTHS } from '../marks/nodes/rims';
import type { SceneInput } from './sceneInput';
import type { ScreenNodes } from './screenNodes';
import { boxBehind, type DiscBatch, type Ring, type Scene } from './scene';
import { buildTieNames } from '../marks/ties/tieNames';
import { buildTies } from '../marks/ties/ties';
import { nodeScale } from './view';

const FADED = 0.16;
/** A batch of nodes is numbered by what they share: eight bits for the colour, three for the shape, and above them the rim. */
const SHAPE = 0x100;
const RIM = 0x800;
/** Marks the batches of nodes that are not faded. */
const CLEAR = 0x10000;

/** Turns a prepared map, positions and a view into a picture. The same input gives the same picture everywhere. */
export function buildScene(input: SceneInput): Scene {
  const nodes = toScreen(input);
  const ties = buildTies(input, nodes);
  const { regions, titles } = buildRegions(input, nodes);
  const notes = buildNotes(input, nodes);
  const legend = buildLegend(input.map, input.theme, input.size, input.view.scale);
  const taken = [...titles, ...notes.texts, ...legend.texts].map(boxBehind);
  const names = buildNames(input, nodes, taken);
  const onTies = buildTieNames(input, nodes, [...taken, ...names.texts.map(boxBehind)]);
  return {
    width: input.size.width,
    height: input.size.height,
    ground: input.theme.ground,
    regions,
    ...ties,
    discs: buildDiscs(input, nodes),
    pies: buildPies(clearNodes(input, nodes), input.map.pies, input.map.colours, nodes),
    pictures: buildPictures(clearNodes(input, nodes), input.map, nodes),
    rings: buildRings(input, nodes),
    leaders: [...names.leaders, ...notes.leaders],
    texts: [
      ...buildLetters(clearNodes(input, nodes), input.map, nodes),
      ...onTies,
      ...names.texts,
      ...titles,
      ...notes.texts,
    ],
    grips: [...names.grips, ...notes.grips],
    namesLeft: names.left ?? 0,
    legend,
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

/** Nodes in view that are not faded, the smaller after the larger. */
function clearNodes(input: SceneInput, nodes: ScreenNodes): Uint32Array {
  const { size } = input;
  const isClear = clearTest(input);
  return input.map.paintOrder.filter((v) => isClear(v) && isInView(v, nodes, size));
}

/** Whether a node is not faded. */
function clearTest({ map, focus }: SceneInput): (node: number) => boolean {
  return (v) => (focus === null ? map.pale?.[v] !== 1 : focus.nodes.has(v) || focus.around.has(v));
}

function isInView(v: number, { x, y, radius }: ScreenNodes, { width, height }: SceneInput['size']): boolean {
  const r = radius[v];
  return x[v] + r >= 0 && x[v] - r <= width && y[v] + r >= 0 && y[v] - r <= height;
}

/** Discs by colour, the smaller over the larger; faded ones beneath clear ones. */
function buildDiscs(input: SceneInput, nodes: ScreenNodes): DiscBatch[] {
  const { map, size } = input;
  const isClear = clearTest(input);
  const batches = new Map<number, number[]>();
  for (const v of map.paintOrder) {
    if (!isInView(v, nodes, size)) continue;
    const key =
      (isClear(v) ? CLEAR : 0) + (map.rims?.[v] ?? 0) * RIM + (map.shape?.[v] ?? 0) * SHAPE + map.colour[v];
    const list = batches.get(key) ?? [];
    list.push(nodes.x[v], nodes.y[v], nodes.radius[v]);
    batches.set(key, list);
  }
  return [...batches]
    .sort(([a], [b]) => Number(a >= CLEAR) - Number(b >= CLEAR))
    .map(([key, list]) => ({
      shape: NodeShape.options[Math.floor((key % RIM) / SHAPE)],
      fill: map.colours[key % SHAPE],
      alpha: key >= CLEAR ? 0.94 : FADED,
      ...rimOf(Math.floor((key % CLEAR) / RIM), input),
      discs: Float32Array.from(list),
    }));
}

/** The rim of a class: one that says something, or the fine one that parts nodes from each other. */
function rimOf(rim: number, { theme, view }: SceneInput): Pick<DiscBatch, 'rim' | 'rimWidth'> {
  if (rim > 0) return { rim: theme.ink, rimWidth: RIM_WIDTHS[rim] * nodeScale(view.scale) };
  // A rim on the dots of a far view would be all that one sees of them.
  return { rim: theme.ground, rimWidth: view.scale < 0.6 ? 0 : 0.9 };
}

function buildRings({ focus, theme }: SceneInput, nodes: ScreenNodes): Ring[] {
  if (!focus) return [];
  const few = focus.nodes.size <= FEW;
  return [...focus.nodes]
    .filter((v) => nodes.radius[v] > 0)
    .map((v) => ({
      x: nodes.x[v],
      y: nodes.y[v],
      radius: nodes.radius[v] + (few ? 3.5 : 1),
      stroke: theme.mark,
      width: few ? 2.2 : 1.4,
    }));
}
