import type { MapDescription, Stroke } from '@pebble/contract';
import { polygonHull } from 'd3-polygon';
import { nodesWithin } from '../../interaction/choosing';
import { contoursAround } from './contour';
import { groupCodes } from '../../../network/groupCodes';
import type { SceneInput } from '../../scene/sceneInput';
import type { ScreenNodes } from '../../scene/screenNodes';
import { OTHER_COLOUR } from '../../style/palette';
import type { PreparedMap } from '../../scene/prepare';
import { wordsAbove, type RegionWords, type TakenPlace } from './regionWords';
import { linesRoundStroke } from '../ties/strokes';
import type { Region, TextMark } from '../../scene/scene';

/** Regions with their titles, and the notes below these. */
export interface RegionMarks {
  readonly regions: Region[];
  readonly titles: TextMark[];
}

/** Room between the outermost nodes and the line, in pixels at scale 1. */
const ROOM = 16;
/** Points of the circle round each node through which a hull may go. */
const ROUND = 12;
/** A node farther from its group's middle than so many times what three quarters of the group keep to is left outside. */
const FAR = 2.2;
/** A part of a group that has a smaller share of it has no line of its own where lines go by density. */
const SCATTERED = 0.04;
const FILL = 0.11;
const MOST = 40;

/** Nodes that are outlined together. */
interface Outlined extends RegionWords {
  readonly nodes: readonly number[];
}

/** Something outlined, as it is drawn. */
interface Drawn extends RegionWords {
  readonly lines: readonly Float32Array[];
  readonly colour: string;
}

/**
 * Soft outlines round the groups of a column and round nodes that were chosen, and lines drawn by hand. Titles and notes
 * stand at the top of the outline, where they cover no others.
 */
export function buildRegions(input: SceneInput, nodes: ScreenNodes): RegionMarks {
  const { map, view } = input;
  const marks: RegionMarks = { regions: [], titles: [] };
  const room = ROOM * Math.max(0.5, Math.min(1.5, view.scale));
  const taken: TakenPlace[] = [];
  const { form } = map.description.regions;
  const round = ({ title, note, nodes: inside }: Outlined): Drawn => ({
    title,
    note,
    lines: linesRound(inside, nodes, room, form),
    colour: commonColour(inside, map.colour, map.colours),
  });
  const groups = groupOutlines(map, nodes).map(round);
  const byHand = [...ownOutlines(map).map(round), ...drawnStrokes(input, nodes)];
  for (const one of [...groups, ...byHand]) {
    const { lines, colour } = one;
    const isTitleAlone = form === 'title' && groups.includes(one);
    if (!isTitleAlone) marks.regions.push({ fill: colour, alpha: FILL, stroke: colour, lines });
    if (one.title || one.note) marks.titles.push(...wordsAbove(one, highestOf(lines[0]), input, taken));
  }
  return marks;
}

/** Lines drawn by hand. */
function drawnStrokes({ map, view }: SceneInput, nodes: ScreenNodes): Drawn[] {
  return map.description.regions.strokes
    .map((stroke) => ({
      title: stroke.title,
      note: stroke.note ?? '',
      lines: linesRoundStroke(stroke, nodes, view.scale),
      colour: strokeColour(map, stroke),
    }))
    .filter(({ lines }) => lines.length > 0);
}

/** The colour that most of the nodes along a drawn line have. */
export function strokeColour({ colour, colours }: PreparedMap, { points }: Stroke): string {
  return commonColour([...new Set(points.map(({ near }) => near))], colour, colours);
}

/** The groups of the column that are large enough; single nodes far from the rest of their group are left outside. */
function groupOutlines(map: PreparedMap, nodes: ScreenNodes): Outlined[] {
  const { column, least, titles, notes, form } = map.description.regions;
  if (column === null || !(column in map.network.nodes)) return [];
  const { of, names } = groupCodes(map.network.nodes[column]);
  const given = map.network.titles?.[column] ?? {};
  const members: number[][] = names.map(() => []);
  for (const v of map.nodes) if (!map.pale?.[v]) members[of[v]].push(v);
  return members
    .map((all, g) => ({ name: names[g], all, inside: form === 'dense' ? all : near(all, nodes) }))
    .filter(({ name, all, inside }) => name !== '' && all.length >= least && inside.length > 1)
    .slice(0, MOST)
    .map(({ name, inside }) => ({
      title: titles[name] ?? given[name] ?? '',
      note: notes[name] ?? '',
      nodes: inside,
    }));
}

/** Outlines round chosen nodes, as far as these are shown. */
function ownOutlines(map: PreparedMap): Outlined[] {
  const { own } = map.description.regions;
  if (own.length === 0) return [];
  const shown = new Set(map.nodes);
  return own
    .map(({ title, note = '', nodes }) => ({ title, note, nodes: nodes.filter((v) => shown.has(v)) }))
    .filter(({ nodes }) => nodes.length > 0);
}

/** The nodes of a group without those far from the rest. */
function near(group: readonly number[], { x, y }: ScreenNodes): number[] {
  if (group.length < 4) return [...group];
  const middle = (values: Float32Array): number => {
    const sorted = group.map((v) => values[v]).sort((a, b) => a - b);
    return sorted[sorted.length >> 1];
  };
  const [mx, my] = [middle(x), middle(y)];
  const distance = (v: number): number => Math.sqrt((x[v] - mx) ** 2 + (y[v] - my) ** 2);
  const sorted = group.map(distance).sort((a, b) => a - b);
  const far = FAR * sorted[Math.floor(sorted.length * 0.75)];
  return group.filter((v) => distance(v) <= far);
}

function linesRound(
  group: readonly number[],
  nodes: ScreenNodes,
  room: number,
  form: MapDescription['regions']['form'],
): Float32Array[] {
  if (form !== 'dense') return [Float32Array.from(hull(group, nodes, room).flat())];
  const largest = group.reduce((most, v) => Math.max(most, nodes.radius[v]), 0);
  const lines = contoursAround(group, nodes, Math.max(room, 0.8 * largest));
  const least = Math.max(2, SCATTERED * group.length);
  const inside = lines.map((line) => nodesWithin(pairsOf(line), nodes, group).length);
  const dense = lines.filter((_, i) => inside[i] === 0 || inside[i] >= least);
  return dense.length > 0 ? dense : lines;
}

function pairsOf(points: Float32Array): [number, number][] {
  return Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]);
}

/** The highest point of a line. */
function highestOf(points: Float32Array): readonly [number, number] {
  let best = 0;
  for (let i = 2; i < points.length; i += 2) if (points[i + 1] < points[best + 1]) best = i;
  return [points[best], points[best + 1]];
}

/** The convex hull of circles round nodes. */
function hull(group: readonly number[], { x, y, radius }: ScreenNodes, room: number): [number, number][] {
  const points: [number, number][] = [];
  for (const v of group)
    for (let i = 0; i < ROUND; i++) {
      const angle = (2 * Math.PI * i) / ROUND;
      const reach = radius[v] + room;
      points.push([x[v] + reach * Math.cos(angle), y[v] + reach * Math.sin(angle)]);
    }
  return polygonHull(points) ?? points;
}

/** The colour that most of some nodes have. */
function commonColour(group: readonly number[], colour: Uint8Array, colours: readonly string[]): string {
  const count = new Map<number, number>();
  for (const v of group) count.set(colour[v], (count.get(colour[v]) ?? 0) + 1);
  const [most] = [...count].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  return most ? colours[most[0]] : OTHER_COLOUR;
}
