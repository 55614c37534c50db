import { legendBeside, legendHeight } from '../marks/legend/legend';
import { buildScene } from '../scene/buildScene';
import type { PreparedMap } from '../scene/prepare';
import type { Scene, ScenePanel, TextMark } from '../scene/scene';
import { fitView, marginFor, seenOn, type Margin, type Size, type View } from '../scene/view';
import { clipText } from '../style/textWidth';
import type { Theme } from '../style/palette';
import { sharedLegend } from './sharedLegend';

/** One map on a page. */
export interface PagePart {
  readonly map: PreparedMap;
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** The part of it that is seen on a screen of some size; null for the whole. */
  readonly seen: (View & Size) | null;
  readonly title: string;
}

export interface PageForm {
  /** In pixels of the scene. */
  readonly width: number;
  readonly columns: number;
  readonly theme: Theme;
  /** How high the page is, without what stands below it; null for as high as its pictures are. */
  readonly height: number | null;
}

/** Between pictures, and round them. */
const GAP = 16;
/** Of the letter and the title over each picture. */
const HEAD = 30;
const TITLE_SIZE = 15;
/** Of a picture, where nothing says how high the page is. */
const FORM = 0.72;
/** Round a map that has no legend of its own. */
const NARROW: Margin = { left: 24, right: 24, top: 20, bottom: 20 };
const LEAST_HEIGHT = 90;
/** A legend that takes less of the height of its picture is low. */
const LOW = 0.3;
/** Between a legend and the edge, and the map. */
const LEGEND_EDGE = 44;

/**
 * Several maps on one page, in rows, each with a letter and its title; what their legends have in common stands once below them. It is a
 * scene with a panel for each.
 */
export function platePage(parts: readonly PagePart[], { width, columns, theme, height }: PageForm): Scene {
  const across = Math.max(1, Math.min(columns, parts.length));
  const rows = Math.ceil(parts.length / across);
  const panelWidth = (width - (across + 1) * GAP) / across;
  const sizeFor = (legendHeight: number): Size => ({
    width: panelWidth,
    height:
      height === null
        ? panelWidth * FORM
        : Math.max(LEAST_HEIGHT, (height - legendHeight - GAP) / rows - HEAD - GAP),
  });
  const shared = sharedLegend(
    parts.map(({ map }) => map),
    areAlike(parts),
  );
  const legendAt = (scale: number) => legendBeside(shared.sections, parts[0].map, theme, { width, scale });
  const size = sizeFor(legendAt(1).height);
  const maps = parts.map(({ map }) => withoutParts(map, shared.parts));
  const views = viewsOf(parts, maps, size);
  const { marks, height: legendHeight } = legendAt(views[0].scale);
  const panels = parts.map(({ x, y }, i): ScenePanel => ({
    x: GAP + (i % across) * (panelWidth + GAP),
    y: rowTop(Math.floor(i / across), size),
    scene: buildScene({ map: maps[i], x, y, view: views[i], size, theme, focus: null }),
    under: null,
  }));
  const below = rowTop(rows, size) - HEAD + GAP / 2;
  return {
    width,
    height: below + legendHeight,
    ground: theme.ground,
    regions: [],
    lines: [],
    curves: [],
    triangles: [],
    discs: [],
    pies: [],
    pictures: [],
    rings: [],
    leaders: [],
    grips: [],
    texts: panels.flatMap((panel, i) => titleMarks(panel, letterOf(i), parts[i].title, theme)),
    legend: moved(marks, below),
    panels,
  };
}

/** a to z, and then aa, ab and so on. */
export function letterOf(place: number): string {
  const letter = String.fromCharCode(97 + (place % 26));
  return place < 26 ? letter : letterOf(Math.floor(place / 26) - 1) + letter;
}

function rowTop(row: number, { height }: Size): number {
  return GAP / 2 + HEAD + row * (height + HEAD + GAP);
}

/** Whether all are seen from as far away: whole, or the same part of a map on screens of the same size. */
function areAlike(parts: readonly PagePart[]): boolean {
  const of = ({ seen }: PagePart): string => (seen ? [seen.scale, seen.width, seen.height].join() : 'whole');
  return parts.every((part) => of(part) === of(parts[0]));
}

/** Those that are seen whole are seen from as far away, so that their sizes can be compared. @param maps without what is shared */
function viewsOf(parts: readonly PagePart[], maps: readonly PreparedMap[], size: Size): View[] {
  const margins = maps.map((map) => marginOf(map, size));
  const views = parts.map(({ x, y, seen }, i) => {
    const { radius, nodes } = maps[i];
    return seen ? seenOn(size, seen) : fitView(x, y, radius, nodes, size, margins[i]);
  });
  const scale = Math.min(...views.filter((_, i) => parts[i].seen === null).map((one) => one.scale));
  return views.map((view, i) => (parts[i].seen ? view : awayFrom(view, scale, margins[i], size)));
}

/** Room for what is left of a map's own legend: a low one stands over or under it, a high one beside it. */
function marginOf(map: PreparedMap, { height }: Size): Margin {
  const { corner } = map.description.legend;
  const own = legendHeight(map);
  if (own === 0) return NARROW;
  if (own > LOW * height) return marginFor(corner, NARROW);
  return { ...NARROW, [corner.startsWith('upper') ? 'top' : 'bottom']: own + LEGEND_EDGE };
}

/** The same from further away, with what was in the middle. */
function awayFrom(view: View, scale: number, margin: Margin, { width, height }: Size): View {
  const by = scale / view.scale;
  const [x, y] = [(margin.left + width - margin.right) / 2, (margin.top + height - margin.bottom) / 2];
  return { scale, x: x + (view.x - x) * by, y: y + (view.y - y) * by };
}

function withoutParts(map: PreparedMap, parts: ReturnType<typeof sharedLegend>['parts']): PreparedMap {
  const { legend } = map.description;
  const without = [...new Set([...legend.without, ...parts])];
  return { ...map, description: { ...map.description, legend: { ...legend, without } } };
}

function titleMarks(
  { x, y, scene }: ScenePanel,
  letter: string,
  title: string,
  { ink, ground }: Theme,
): TextMark[] {
  const mark = (text: string, left: number, face: TextMark['face']): TextMark => ({
    text,
    x: x + left,
    y: y - 10,
    size: TITLE_SIZE,
    face,
    anchor: 'start',
    fill: ink,
    halo: ground,
    alpha: 1,
  });
  const beside = 12 + 9 * letter.length;
  return [
    mark(letter, 0, 'bold'),
    mark(clipText(title, TITLE_SIZE, 'plain', scene.width - beside), beside, 'plain'),
  ];
}

/** A legend so many pixels further down. */
function moved(legend: Scene['legend'], by: number): Scene['legend'] {
  const along = (points: Float32Array, step: number): Float32Array =>
    points.map((value, i) => (i % step === 1 || (step === 4 && i % 4 === 3) ? value + by : value));
  return {
    regions: legend.regions.map((one) => ({ ...one, lines: one.lines.map((points) => along(points, 2)) })),
    lines: legend.lines.map((one) => ({ ...one, points: along(one.points, 4) })),
    discs: legend.discs.map((one) => ({ ...one, discs: along(one.discs, 3) })),
    rings: legend.rings.map((one) => ({ ...one, y: one.y + by })),
    texts: legend.texts.map((one) => ({ ...one, y: one.y + by })),
    spots: legend.spots.map((one) => ({ ...one, y: one.y + by })),
  };
}
