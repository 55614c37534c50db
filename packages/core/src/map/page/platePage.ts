import { legendBeside } from '../marks/legend/legend';
import { buildScene } from '../scene/buildScene';
import type { PreparedMap } from '../scene/prepare';
import type { Scene, ScenePanel, TextMark } from '../scene/scene';
import { fitView, marginFor, type Margin, type Size, type View } from '../scene/view';
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
  // How high the legend is depends on what is shared, and that on how far away the maps are: on the size of the panels.
  const first = sizeFor(0);
  const guess = legendOf(parts, width, viewsOf(parts, first, true), theme);
  const size = sizeFor(guess.height);
  const views = viewsOf(parts, size, guess.shared.sections.length > 0);
  const { shared, marks, height: legendHeight } = legendOf(parts, width, views, theme);
  const panels = parts.map((part, i): ScenePanel => {
    const map = withoutParts(part.map, shared.parts);
    const scene = buildScene({ map, x: part.x, y: part.y, view: views[i], size, theme, focus: null });
    return {
      x: GAP + (i % across) * (panelWidth + GAP),
      y: rowTop(Math.floor(i / across), size),
      scene,
      under: null,
    };
  });
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

/** Those that are seen whole are seen from as far away, so that their sizes can be compared. */
function viewsOf(parts: readonly PagePart[], size: Size, sharesLegend: boolean): View[] {
  const views = parts.map((part) => viewOf(part, size, sharesLegend));
  const scale = Math.min(...views.filter((_, i) => parts[i].seen === null).map((one) => one.scale));
  return views.map((view, i) => (parts[i].seen ? view : awayFrom(view, scale, size)));
}

function viewOf({ map, x, y, seen }: PagePart, size: Size, sharesLegend: boolean): View {
  if (seen) {
    const by = Math.min(size.width / seen.width, size.height / seen.height);
    return {
      scale: seen.scale * by,
      x: size.width / 2 + (seen.x - seen.width / 2) * by,
      y: size.height / 2 + (seen.y - seen.height / 2) * by,
    };
  }
  const margin = sharesLegend ? NARROW : marginFor(map.description.legend.corner);
  return fitView(x, y, map.radius, map.nodes, size, margin);
}

/** The same from further away, with what was in the middle. */
function awayFrom(view: View, scale: number, { width, height }: Size): View {
  const by = scale / view.scale;
  return { scale, x: width / 2 + (view.x - width / 2) * by, y: height / 2 + (view.y - height / 2) * by };
}

function legendOf(parts: readonly PagePart[], width: number, views: readonly View[], theme: Theme) {
  const shared = sharedLegend(
    parts.map(({ map }) => map),
    views.map(({ scale }) => scale),
  );
  const { marks, height } = legendBeside(shared.sections, parts[0].map, theme, {
    width,
    scale: views[0].scale,
  });
  return { shared, marks, height };
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
