import type { LegendPart, NodeShape } from '@pebble/contract';
import { columnTitle } from '../../../measures/columns';
import { formatCount } from '../../../words/sentence';
import { groupKey } from '../../style/colours';
import { groupTitle } from '../../style/groupTitles';
import { numbersOf } from '../../../network/tables';
import type { PreparedMap } from '../../scene/prepare';
import { OTHER_COLOUR } from '../../style/palette';
import { strokeColour } from '../regions/regions';
import { kindColours } from '../ties/ties';
import { OPACITIES, widthClass, widthLabels, WIDTHS } from '../ties/tieWidths';

/** A line that explains a colour, a shape or both. */
export interface LegendGroup {
  readonly label: string;
  /** Null for a line that sums up others. */
  readonly nodes: number | null;
  readonly colour?: string;
  readonly shape?: NodeShape;
  /** Width of the rim, in pixels at scale 1. */
  readonly rim?: number;
  /** The group that a click on the line picks. */
  readonly picks?: number;
  /** The name under which words of one's own for it are kept. */
  readonly key?: string;
}

/** A part of the legend with its heading. */
export type LegendSection = { readonly part: LegendPart; readonly heading: string } & (
  | { readonly what: 'groups'; readonly groups: readonly LegendGroup[] }
  | { readonly what: 'ramp'; readonly colours: readonly string[]; readonly range: readonly [number, number] }
  | { readonly what: 'sizes'; readonly values: readonly number[] }
  | { readonly what: 'kinds'; readonly kinds: readonly { label: string; colour: string; ties: number }[] }
  | {
      readonly what: 'widths';
      readonly widths: readonly { label: string; width: number; alpha: number }[];
    }
  | { readonly what: 'outlines'; readonly lines: readonly { label: string; colour: string }[] }
);

/** What the legend of a map says, without the parts that were taken away and those that explain nothing. */
export function legendSections(map: PreparedMap): LegendSection[] {
  const { without, headings } = map.description.legend;
  return [
    colours(map),
    pies(map),
    shapes(map),
    rims(map),
    sizes(map),
    tieColours(map),
    widths(map),
    outlines(map),
  ]
    .filter((section) => section !== null)
    .filter(({ part }) => !without.includes(part))
    .map((section) => ({ ...section, heading: headings[section.part] || section.heading }));
}

function colours(map: PreparedMap): LegendSection {
  const { column } = map.description.colour;
  const begun = { part: 'colour' as const, heading: `Colour: ${columnTitle(column)}` };
  if (map.colourRange) return { ...begun, what: 'ramp', colours: map.colours, range: map.colourRange };
  return {
    ...begun,
    what: 'groups',
    groups: map.groups.map(({ value, name, leader, colour, nodes }) => ({
      label:
        value === -1
          ? 'all others'
          : ownName(
              map,
              groupKey({ name, value }),
              groupTitle(map.network.titles, column, { name, value, leader }),
            ),
      nodes,
      colour,
      // A click on a group shows it alone, which goes for groups that were computed.
      ...(value !== -1 && name === undefined ? { picks: value } : {}),
      ...(value === -1 ? {} : { key: groupKey({ name, value }) }),
    })),
  };
}

/** The name that a group was given for the legend, or else its title on the map. */
function ownName(map: PreparedMap, key: string, usual: string): string {
  const { legend, regions, colour } = map.description;
  const title = regions.column === colour.column ? regions.titles[key] : undefined;
  return legend.names[key] || title || usual;
}

/** What the pies are; which group a colour is stands above. */
function pies(map: PreparedMap): LegendSection | null {
  if (!map.pies) return null;
  return { part: 'shape', heading: 'Inside: groups tied to', what: 'groups', groups: [] };
}

function shapes(map: PreparedMap): LegendSection | null {
  const { column } = map.description.shape;
  if (column === null || map.shapes.length === 0) return null;
  return {
    part: 'shape',
    heading: `Shape: ${columnTitle(column)}`,
    what: 'groups',
    groups: map.shapes.map(({ name, shape, nodes }) => ({ label: name, nodes, shape })),
  };
}

function rims({ description, rimGroups }: PreparedMap): LegendSection | null {
  const { rim } = description.shape;
  if (rim === null || rimGroups.length === 0) return null;
  return {
    part: 'rim',
    heading: `Rim: ${columnTitle(rim.column)}`,
    what: 'groups',
    groups: rimGroups.map(({ name, width, nodes }) => ({ label: name, nodes, rim: width })),
  };
}

function sizes(map: PreparedMap): LegendSection {
  return {
    part: 'size',
    heading: `Size: ${columnTitle(map.description.size.column)}`,
    what: 'sizes',
    values: sizeSteps(map.sizeRange),
  };
}

/** The least, a middling and the highest value. */
function sizeSteps([least, most]: readonly [number, number]): number[] {
  if (most <= least) return [least];
  const middle = least + (most - least) / 4;
  const areWhole = Number.isInteger(least) && Number.isInteger(most);
  const steps = [least, areWhole ? Math.round(middle) : middle, most];
  return steps.filter((value, i) => steps.indexOf(value) === i);
}

/** What the colours of ties are, where they go by a number or by kind. */
function tieColours(map: PreparedMap): LegendSection | null {
  const { tieNumbers } = map;
  if (!tieNumbers) return kinds(map);
  const { column, ramp, range } = tieNumbers;
  return {
    part: 'ties',
    heading: `Colour of ties: ${column}`,
    what: 'ramp',
    colours: ramp,
    range,
  };
}

function kinds(map: PreparedMap): LegendSection | null {
  if (!map.tieKinds) return null;
  const { by, names, of } = map.tieKinds;
  const ties = new Uint32Array(names.length + 1);
  for (const e of map.drawn) ties[of[e]]++;
  const colours = kindColours(names.length);
  const lines = [...names, 'of no kind'].map((label, i) => ({ label, colour: colours[i], ties: ties[i] }));
  return {
    part: 'ties',
    heading: `Colour of ties: ${by}`,
    what: 'kinds',
    kinds: lines.filter((one) => one.ties > 0),
  };
}

/** The widths of ties that are on the map, where there are several. */
function widths(map: PreparedMap): LegendSection | null {
  const cut = cutWords(map);
  const isCut = cut !== null;
  const { width, opacity } = map.description.ties;
  const isEven = width === 'even' && opacity === 'even';
  if (isEven && !isCut) return null;
  const weight = numbersOf(map.network.edges, 'weight');
  const present = new Set<number>();
  for (const e of map.drawn) present.add(widthClass(weight[e], map.widthBounds));
  if (present.size < 2 && !isCut) return null;
  return {
    part: 'width',
    heading: cut ?? `${width === 'even' ? 'Strength' : 'Width'} of ties: weight`,
    what: 'widths',
    widths: isEven
      ? []
      : widthLabels(map.widthBounds)
          .map((label, i) => ({
            label,
            width: width === 'even' ? 1.6 : WIDTHS[i],
            alpha: opacity === 'even' ? 1 : OPACITIES[i] / Math.max(...OPACITIES),
          }))
          .filter((_, i) => present.has(i)),
  };
}

/** What is not done to all ties, where they are too many; null where it is. */
function cutWords({ drawn, edges, courses }: PreparedMap): string | null {
  if (drawn.length < edges.length)
    return `Drawn: ${formatCount(drawn.length)} of ${formatCount(edges.length)}`;
  if (courses && courses.left > 0) return `Bundled: ${formatCount(courses.ties)} strongest ties`;
  return null;
}

function outlines(map: PreparedMap): LegendSection | null {
  const { column, least, form, own, strokes } = map.description.regions;
  const groups =
    column === null || form === 'title'
      ? []
      : [
          {
            label: `${form === 'whole' ? 'groups' : 'dense parts'} of ${least} or more nodes`,
            colour: OTHER_COLOUR,
          },
        ];
  if (groups.length + own.length + strokes.length === 0) return null;
  return {
    part: 'outlines',
    heading: column === null || form === 'title' ? 'Outlines' : `Outlines: ${columnTitle(column)}`,
    what: 'outlines',
    lines: [
      ...groups,
      ...own.map(({ title, nodes }) => ({
        label: title || 'chosen nodes',
        colour: map.colours[map.colour[nodes[0]]],
      })),
      ...strokes.map((stroke) => ({
        label: stroke.title || 'drawn by hand',
        colour: strokeColour(map, stroke),
      })),
    ],
  };
}
