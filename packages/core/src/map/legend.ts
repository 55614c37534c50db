import type { NodeShape } from '@pebble/contract';
import { columnTitle } from '../network/columns';
import { formatCount } from '../weave/sentence';
import { RAMP_STEPS, type Theme } from './palette';
import type { PreparedMap } from './prepare';
import { radiusFor } from './sizes';
import type { DiscBatch, LegendMarks, LegendSpot, Ring, TextMark } from './scene';
import { clipText } from './textWidth';
import { nodeScale, type Size } from './view';

const SIZE = 12;
const LINE = 18;
const LEFT = 18;
const WIDTH = 190;
/** Room that is left free above. */
const TOP = 28;

/** The legend in the lower left corner: what the colours are, what the sizes are. */
export function buildLegend(map: PreparedMap, theme: Theme, size: Size, scale: number): LegendMarks {
  const texts: TextMark[] = [];
  const discs: DiscBatch[] = [];
  const rings: Ring[] = [];
  const spots: LegendSpot[] = [];
  const write = (text: string, x: number, y: number, bold = false, soft = false): void =>
    void texts.push({
      text,
      x,
      y,
      size: SIZE,
      face: bold ? 'bold' : 'plain',
      anchor: 'start',
      fill: soft ? theme.soft : theme.ink,
      halo: theme.ground,
      alpha: 1,
    });
  const disc = (x: number, y: number, radius: number, fill: string, shape: NodeShape = 'circle'): void =>
    void discs.push({
      shape,
      fill,
      alpha: 1,
      rim: theme.ground,
      rimWidth: 0,
      discs: Float32Array.of(x, y, radius),
    });

  const colour = map.description.colour.column;
  // On a low picture there is no room for all groups: the last ones stand together in a line.
  const shapeRows = map.shapes.length > 0 ? map.shapes.length * LINE + LINE + 10 : 0;
  const most = Math.max(1, Math.floor((size.height - 20 - 48 - TOP - shapeRows) / LINE) - 1);
  const isCut = map.groups.length > most;
  const groups = isCut ? map.groups.slice(0, most - 1) : map.groups;
  const rows = isCut ? most : Math.max(1, groups.length);
  let y = size.height - 20 - (rows + 1) * LINE - 48 - shapeRows;
  write(`Colour: ${columnTitle(colour)}`, LEFT, y, true);
  for (const group of groups) {
    y += LINE;
    const label =
      group.value === -1 ? 'all others' : (group.name ?? `${group.value} · round ${group.leader}`);
    disc(LEFT + 5, y - 4, 5, group.colour);
    const count = formatCount(group.nodes);
    write(`${clipText(label, SIZE, 'plain', WIDTH - 46)}  ${count}`, LEFT + 18, y, false, true);
    // A click on a group shows it alone, which goes for groups that were computed.
    if (group.value !== -1 && group.name === undefined) {
      spots.push({
        x: LEFT - 4,
        y: y - 13,
        width: WIDTH,
        height: LINE,
        group: group.value,
        label: `${label}, ${count} accounts`,
      });
    }
  }
  if (isCut) {
    y += LINE;
    write(`and ${formatCount(map.groups.length - groups.length)} more`, LEFT + 18, y, false, true);
  }
  if (map.colourRange) {
    y += LINE;
    for (let i = 0; i < 8; i++)
      disc(LEFT + 5 + i * 11, y - 4, 5, map.colours[Math.round((i / 7) * (RAMP_STEPS - 1))]);
    write(
      `${formatValue(map.colourRange[0])} to ${formatValue(map.colourRange[1])}`,
      LEFT + 98,
      y,
      false,
      true,
    );
  }
  if (map.shapes.length > 0) {
    y += LINE + 10;
    write(`Shape: ${columnTitle(map.description.shape.column!)}`, LEFT, y, true);
    for (const { name, shape, nodes } of map.shapes) {
      y += LINE;
      disc(LEFT + 5, y - 4, 5, theme.soft, shape);
      write(`${clipText(name, SIZE, 'plain', WIDTH - 46)}  ${formatCount(nodes)}`, LEFT + 18, y, false, true);
    }
  }
  y += LINE + 10;
  write(`Size: ${columnTitle(map.description.size.column)}`, LEFT, y, true);
  let x = LEFT;
  const grown = nodeScale(scale);
  for (const value of sizeSteps(map.sizeRange)) {
    const radius = Math.min(14, radiusFor(value, map.sizeRange, map.description.size) * grown);
    x += radius;
    rings.push({ x, y: y + 19, radius, stroke: theme.soft, width: 1 });
    const text = formatValue(value);
    write(text, x + radius + 4, y + 23, false, true);
    x += radius + 18 + text.length * 6.6;
  }
  return { discs, rings, texts, spots };
}

/** The least, a middling and the highest value. */
function sizeSteps([least, most]: readonly [number, number]): number[] {
  if (most <= least) return [least];
  const middle = least + (most - least) / 4;
  return [least, most >= 4 ? Math.round(middle) : middle, most].filter((v, i, all) => all.indexOf(v) === i);
}

/** A number as it is shown to people: whole numbers in groups of three, small ones with three digits. */
export function formatValue(value: number): string {
  if (!Number.isFinite(value)) return 'none';
  if (Number.isInteger(value)) return formatCount(value);
  const size = Math.abs(value);
  if (size >= 100) return formatCount(Math.round(value));
  if (size >= 1) return value.toFixed(1);
  if (size >= 0.001) return value.toFixed(3);
  return value.toExponential(1);
}
