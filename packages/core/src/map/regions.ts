import { groupCodes } from '../network/groupCodes';
import type { ScreenNodes, SceneInput } from './sceneInput';
import { OTHER_COLOUR } from './palette';
import type { Region, TextMark } from './scene';
import { textWidth } from './textWidth';

/** Regions with their titles. */
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
const FILL = 0.11;
const TITLE = 15;
const MOST = 40;

/**
 * Soft outlines round the groups of a column: the hull of each group with room round its nodes; single nodes far from the rest of their group
 * are left outside. Titles stand at the top of the outline, where they cover no other title.
 */
export function buildRegions(input: SceneInput, nodes: ScreenNodes): RegionMarks {
  const { map, theme, view, size } = input;
  const { column, least, titles } = map.description.regions;
  const marks: RegionMarks = { regions: [], titles: [] };
  if (column === null || !(column in map.network.nodes)) return marks;
  const { of, names } = groupCodes(map.network.nodes[column]);
  const members: number[][] = names.map(() => []);
  for (const v of map.nodes) if (!map.pale?.[v]) members[of[v]].push(v);
  const chosen = members
    .map((all, g) => ({ name: names[g], nodes: all.length, inside: near(all, nodes) }))
    .filter(({ name, nodes: all, inside }) => name !== '' && all >= least && inside.length > 1)
    .slice(0, MOST);
  const room = ROOM * Math.max(0.5, Math.min(1.5, view.scale));
  const taken: { x: number; y: number; width: number }[] = [];
  for (const { name, inside } of chosen) {
    const points = hull(inside, nodes, room);
    const colour = commonColour(inside, map.colour, map.colours);
    marks.regions.push({
      fill: colour,
      alpha: FILL,
      stroke: colour,
      points: Float32Array.from(points.flatMap(([x, y]) => [x, y])),
    });
    const title = titles[name];
    if (!title) continue;
    const top = points.reduce((best, point) => (point[1] < best[1] ? point : best));
    const width = textWidth(title, TITLE, 'serifBold');
    const x = Math.max(width / 2 + 6, Math.min(size.width - width / 2 - 6, top[0]));
    let y = Math.max(TITLE + 4, top[1] - 6);
    while (taken.some((t) => Math.abs(t.y - y) < TITLE + 3 && Math.abs(t.x - x) < (t.width + width) / 2))
      y += TITLE + 4;
    taken.push({ x, y, width });
    marks.titles.push({
      text: title,
      x,
      y,
      size: TITLE,
      face: 'serifBold',
      anchor: 'middle',
      fill: theme.ink,
      halo: theme.ground,
      alpha: 1,
    });
  }
  return marks;
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

/** The convex hull of circles round nodes, by Andrew's monotone chain (1979, Information Processing Letters 9). */
function hull(group: readonly number[], { x, y, radius }: ScreenNodes, room: number): [number, number][] {
  const points: [number, number][] = [];
  for (const v of group)
    for (let i = 0; i < ROUND; i++) {
      const angle = (2 * Math.PI * i) / ROUND;
      const reach = radius[v] + room;
      points.push([x[v] + reach * Math.cos(angle), y[v] + reach * Math.sin(angle)]);
    }
  points.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (all: readonly [number, number][]): [number, number][] => {
    const chain: [number, number][] = [];
    for (const p of all) {
      while (chain.length > 1 && turn(chain[chain.length - 2], chain[chain.length - 1], p) <= 0) chain.pop();
      chain.push(p);
    }
    chain.pop();
    return chain;
  };
  return [...half(points), ...half([...points].reverse())];
}

function turn(a: readonly number[], b: readonly number[], c: readonly number[]): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}

/** The colour that most of some nodes have. */
function commonColour(group: readonly number[], colour: Uint8Array, colours: readonly string[]): string {
  const count = new Map<number, number>();
  for (const v of group) count.set(colour[v], (count.get(colour[v]) ?? 0) + 1);
  const [most] = [...count].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  return most ? colours[most[0]] : OTHER_COLOUR;
}
