import type { LegendCorner, LegendPart, NodeShape } from '@pebble/contract';
import { formatCount } from '../../../words/sentence';
import { formatValue } from '../../../words/formatValue';
import { legendSections, type LegendGroup, type LegendSection } from './legendSections';
import { RAMP_STEPS, type Theme } from '../../style/palette';
import type { PreparedMap } from '../../scene/prepare';
import { radiusFor } from '../nodes/sizes';
import type {
  DiscBatch,
  LegendMarks,
  LegendSpot,
  LineBatch,
  Region,
  Ring,
  TextMark,
} from '../../scene/scene';
import { grownWidth } from '../ties/ties';
import { breakText, clipApart, clipText, isolated, textWidth } from '../../style/textWidth';
import { nodeScale, type Size } from '../../scene/view';

const SIZE = 12;
const LINE = 18;
/** Between the lines of one entry, of which it has so many at most. */
const NEXT_LINE = 15;
const MOST_LINES = 3;
/** What a sign, and a number behind it, take of the width of an entry. */
const BESIDE = { groups: 46, kinds: 60, outlines: 20 } as const;
const GAP = 10;
const WIDTH = 190;
/** Room between the legend and the edges of the picture. */
const SIDE = 18;
const EDGE = 32;
/** Below the heading of sizes stand rings, which are higher than a line. */
const RINGS = 26;

/** The legend in a corner: what colours, shapes, sizes, widths and outlines are, with the values that are on the map. */
export function buildLegend(map: PreparedMap, theme: Theme, size: Size, scale: number): LegendMarks {
  const sections = fitted(legendSections(map), size.height - 2 * EDGE);
  const { left, top } = placeOf(map.description.legend.corner, heightOf(sections), size);
  const pen = new LegendPen(theme, left, top);
  sections.forEach((section, rank) => {
    if (rank > 0) pen.skip(GAP);
    drawSection(pen, section, map, scale);
  });
  return pen.marks;
}

/** Lines of a list that stand below each other where parts of a legend stand side by side. */
const ROWS_BESIDE = 5;

/** Parts of a legend side by side, in as many rows as they need, and how high that is. The values of sizes are those of the map. */
export function legendBeside(
  sections: readonly LegendSection[],
  map: PreparedMap,
  theme: Theme,
  { width, scale }: { readonly width: number; readonly scale: number },
): { readonly marks: LegendMarks; readonly height: number } {
  const parts = sections.flatMap(split);
  const across = Math.max(1, Math.floor((width - 2 * SIDE + COLUMN_GAP) / (WIDTH + COLUMN_GAP)));
  const all: LegendMarks[] = [];
  let top = 0;
  for (let first = 0; first < parts.length; first += across) {
    const row = parts.slice(first, first + across);
    row.forEach((section, i) => {
      const pen = new LegendPen(theme, SIDE + i * (WIDTH + COLUMN_GAP), top);
      drawSection(pen, section, map, scale);
      all.push(pen.marks);
    });
    top += Math.max(...row.map((section) => heightOf([section]))) + GAP;
  }
  return { marks: joined(all), height: top };
}

const COLUMN_GAP = 22;

/** A long list as several lists, of which the first alone has the heading. */
function split(section: LegendSection): LegendSection[] {
  const pieces = <T>(list: readonly T[]): T[][] =>
    Array.from({ length: Math.ceil(list.length / ROWS_BESIDE) }, (_, i) =>
      list.slice(i * ROWS_BESIDE, (i + 1) * ROWS_BESIDE),
    );
  const headed = (i: number): { part: LegendPart; heading: string } => ({
    part: section.part,
    heading: i === 0 ? section.heading : '',
  });
  if (rowsOf(section) <= ROWS_BESIDE) return [section];
  if (section.what === 'groups')
    return pieces(section.groups).map((groups, i) => ({ ...section, ...headed(i), groups }));
  if (section.what === 'kinds')
    return pieces(section.kinds).map((kinds, i) => ({ ...section, ...headed(i), kinds }));
  if (section.what === 'outlines')
    return pieces(section.lines).map((lines, i) => ({ ...section, ...headed(i), lines }));
  return [section];
}

function joined(all: readonly LegendMarks[]): LegendMarks {
  return {
    regions: all.flatMap(({ regions }) => regions),
    lines: all.flatMap(({ lines }) => lines),
    discs: all.flatMap(({ discs }) => discs),
    rings: all.flatMap(({ rings }) => rings),
    texts: all.flatMap(({ texts }) => texts),
    spots: all.flatMap(({ spots }) => spots),
  };
}

function drawSection(pen: LegendPen, section: LegendSection, map: PreparedMap, scale: number): void {
  pen.heading(section.part, section.heading);
  switch (section.what) {
    case 'groups':
      inFull(section.groups, BESIDE.groups, (group, lines) => pen.group(group, lines, nodeScale(scale)));
      break;
    case 'ramp':
      pen.ramp(section.colours, section.range);
      break;
    case 'sizes':
      pen.sizes(
        section.values.map((value) => ({
          value,
          radius: Math.min(14, radiusFor(value, map.sizeRange, map.description.size) * nodeScale(scale)),
        })),
      );
      break;
    case 'widths':
      pen.widths(section.widths.map((one) => ({ ...one, width: one.width * grownWidth(scale) })));
      break;
    case 'kinds':
      inFull(section.kinds, BESIDE.kinds, (kind, lines) => pen.kind(kind, lines));
      break;
    case 'outlines':
      inFull(section.lines, BESIDE.outlines, (line, lines) => pen.outline(line, lines));
      break;
  }
}

/** Takes entries with their labels as these fit beside a sign and a number: in lines, and no two of them cut to the same. */
function inFull<T extends { readonly label: string }>(
  entries: readonly T[],
  beside: number,
  take: (entry: T, lines: readonly string[]) => void,
): void {
  const lines = linesOf(entries, beside);
  entries.forEach((entry, i) => take(entry, lines[i]));
}

function linesOf(entries: readonly { readonly label: string }[], beside: number): string[][] {
  const width = WIDTH - beside;
  // A line is seldom full to its end.
  const room = width * (MOST_LINES - 0.4);
  const labels = entries.map(({ label }) => label);
  return clipApart(labels, SIZE, 'plain', room).map((label) => breakText(label, SIZE, 'plain', width));
}

/** In lines of the usual height. */
function rowsOfEntries(entries: readonly { readonly label: string }[], beside: number): number {
  return linesOf(entries, beside).reduce((sum, { length }) => sum + 1 + ((length - 1) * NEXT_LINE) / LINE, 0);
}

function rowsOf(section: LegendSection): number {
  switch (section.what) {
    case 'groups':
      return rowsOfEntries(section.groups, BESIDE.groups);
    case 'kinds':
      return rowsOfEntries(section.kinds, BESIDE.kinds);
    case 'outlines':
      return rowsOfEntries(section.lines, BESIDE.outlines);
    case 'ramp':
      return 1;
    case 'widths':
      return placesInRows(section.widths).at(-1)?.row ?? 0;
    case 'sizes':
      return RINGS / LINE;
  }
}

/** How high the legend of a map is, were there room; 0 where it has none. */
export function legendHeight(map: PreparedMap): number {
  return Math.max(0, heightOf(legendSections(map)));
}

function heightOf(sections: readonly LegendSection[]): number {
  return sections.reduce((sum, section) => sum + (1 + rowsOf(section)) * LINE + GAP, -GAP);
}

/** Where widths of ties stand beside each other, from the left, in as many rows as they need; rows count from 1. */
function placesInRows(widths: readonly { readonly label: string }[]): { x: number; row: number }[] {
  let [x, row] = [0, 1];
  return widths.map(({ label }) => {
    const width = 18 + textWidth(label, SIZE, 'plain');
    if (x > 0 && x + width > WIDTH) [x, row] = [0, row + 1];
    const place = { x, row };
    x += width + 12;
    return place;
  });
}

/** On a low picture there is no room for all groups: the last ones of the longest part stand together in a line. */
function fitted(sections: readonly LegendSection[], room: number): readonly LegendSection[] {
  if (heightOf(sections) <= room) return sections;
  const longest = sections.reduce((best, one) => (rowsOf(one) > rowsOf(best) ? one : best));
  if (longest.what !== 'groups' || longest.groups.length < 3) return sections;
  const { groups } = longest;
  const withFirst = (kept: number): readonly LegendSection[] => {
    const rest = { label: `and ${formatCount(groups.length - kept)} more`, nodes: null };
    return sections.map((one) =>
      one === longest ? { ...longest, groups: [...groups.slice(0, kept), rest] } : one,
    );
  };
  let kept = groups.length - 2;
  while (kept > 1 && heightOf(withFirst(kept)) > room) kept--;
  return withFirst(Math.max(1, kept));
}

function placeOf(corner: LegendCorner, height: number, size: Size): { left: number; top: number } {
  return {
    left: corner.endsWith('left') ? SIDE : size.width - WIDTH - SIDE,
    top: corner.startsWith('upper') ? EDGE : Math.max(4, size.height - EDGE - height),
  };
}

/** Writes lines of the legend one below the other. */
class LegendPen {
  private readonly texts: TextMark[] = [];
  private readonly discs: DiscBatch[] = [];
  private readonly rings: Ring[] = [];
  private readonly lines: LineBatch[] = [];
  private readonly regions: Region[] = [];
  private readonly spots: LegendSpot[] = [];

  constructor(
    private readonly theme: Theme,
    private readonly left: number,
    /** Top of the next line. */
    private y: number,
  ) {}

  get marks(): LegendMarks {
    const { regions, lines, discs, rings, texts, spots } = this;
    return { regions, lines, discs, rings, texts, spots };
  }

  skip(height: number): void {
    this.y += height;
  }

  heading(part: LegendPart, text: string): void {
    if (text !== '') this.write(clipText(text, SIZE, 'bold', WIDTH), this.left, 'bold');
    this.spots.push({ ...this.boxOfLine(), part, group: null, key: null, label: text });
    this.y += LINE;
  }

  /** @param grown by which nodes, and their rims, are larger than at scale 1 */
  group(one: LegendGroup, lines: readonly string[], grown: number): void {
    const spot = this.boxOfLine(lines.length);
    if (one.colour !== undefined) this.disc(this.left + 5, 5, one.colour, one.shape);
    else if (one.shape) this.disc(this.left + 5, 5, this.theme.soft, one.shape);
    else if (one.rim)
      this.rings.push({
        x: this.left + 5,
        y: this.y + 6,
        radius: 5,
        stroke: this.theme.ink,
        width: one.rim * grown,
      });
    const count = one.nodes === null ? '' : `  ${formatCount(one.nodes)}`;
    this.entry(lines, count);
    if (one.key !== undefined)
      this.spots.push({
        ...spot,
        part: null,
        group: one.picks ?? null,
        key: one.key,
        label: `${one.label}, ${formatCount(one.nodes ?? 0)} nodes`,
      });
    this.y += LINE;
  }

  ramp(colours: readonly string[], [least, most]: readonly [number, number]): void {
    for (let i = 0; i < 8; i++)
      this.disc(this.left + 5 + i * 11, 5, colours[Math.round((i / 7) * (RAMP_STEPS - 1))]);
    this.write(`${formatValue(least)} to ${formatValue(most)}`, this.left + 98);
    this.y += LINE;
  }

  sizes(values: readonly { readonly value: number; readonly radius: number }[]): void {
    let x = this.left;
    this.y += RINGS - LINE;
    for (const { value, radius } of values) {
      x += radius;
      this.rings.push({ x, y: this.y + 6, radius, stroke: this.theme.soft, width: 1 });
      const text = formatValue(value);
      this.write(text, x + radius + 4);
      x += radius + 18 + textWidth(text, SIZE, 'plain');
    }
    this.y += LINE;
  }

  kind({ colour, ties }: { readonly colour: string; readonly ties: number }, lines: readonly string[]): void {
    const [x, y] = [this.left, this.y + 6];
    this.lines.push({ stroke: colour, alpha: 1, width: 2.2, points: Float32Array.of(x - 1, y, x + 12, y) });
    this.entry(lines, `  ${formatCount(ties)}`);
    this.y += LINE;
  }

  widths(
    widths: readonly { readonly label: string; readonly width: number; readonly alpha: number }[],
  ): void {
    const places = placesInRows(widths);
    widths.forEach(({ label, width, alpha }, i) => {
      if (i > 0 && places[i].row > places[i - 1].row) this.y += LINE;
      const x = this.left + places[i].x;
      this.lines.push({
        stroke: this.theme.soft,
        alpha,
        width,
        points: Float32Array.of(x, this.y + 6, x + 14, this.y + 6),
      });
      this.write(label, x + 18);
    });
    this.y += LINE;
  }

  outline({ colour }: { readonly colour: string }, lines: readonly string[]): void {
    const [x, y] = [this.left, this.y + 6];
    this.regions.push({
      fill: colour,
      stroke: colour,
      alpha: 0.2,
      lines: [Float32Array.of(x - 1, y - 7, x + 12, y - 7, x + 12, y + 7, x - 1, y + 7)],
    });
    this.entry(lines, '');
    this.y += LINE;
  }

  /** Lines of one label beside its sign; the number stands behind the last. */
  private entry(lines: readonly string[], count: string): void {
    lines.forEach((line, i) => {
      if (i > 0) this.y += NEXT_LINE;
      this.write(`${isolated(line)}${i === lines.length - 1 ? count : ''}`, this.left + 18);
    });
  }

  private write(text: string, x: number, face: 'plain' | 'bold' = 'plain'): void {
    this.texts.push({
      text,
      x,
      y: this.y + 10,
      size: SIZE,
      face,
      anchor: 'start',
      fill: face === 'bold' ? this.theme.ink : this.theme.soft,
      halo: this.theme.ground,
      alpha: 1,
    });
  }

  private disc(x: number, radius: number, fill: string, shape: NodeShape = 'circle'): void {
    this.discs.push({
      shape,
      fill,
      alpha: 1,
      rim: this.theme.ground,
      rimWidth: 0,
      discs: Float32Array.of(x, this.y + 6, radius),
    });
  }

  private boxOfLine(lines = 1): Pick<LegendSpot, 'x' | 'y' | 'width' | 'height'> {
    return { x: this.left - 4, y: this.y - 3, width: WIDTH, height: LINE + (lines - 1) * NEXT_LINE };
  }
}
