import type { Network } from '@pebble/contract';
import { columnTitle } from '../../measures/columns';
import { numbersOf } from '../../network/tables';
import { nodeWords, wovenAs } from '../../weaves';
import { formatValue } from '../../words/formatValue';
import { counted, formatCount } from '../../words/sentence';
import { legendSections } from '../marks/legend/legendSections';
import type { PreparedMap } from '../scene/prepare';

/** What is told of a figure to those who cannot see it. */
export interface FigureText {
  /** What it is, in a sentence: an alternative text. */
  readonly short: string;
  /** What can be read from it, in some sentences. */
  readonly long: string;
}

/** Groups and nodes that are told. */
const TOLD = 8;
const LED = 5;

/** @param caption the sentence under the figure */
export function figureText(
  network: Pick<Network, 'weave' | 'directed'> & Partial<Pick<Network, 'opened'>>,
  map: PreparedMap,
  caption: string,
): FigureText {
  const nodes = counted(map.nodes.length, ...nodeWords(wovenAs(network)));
  const ties = counted(map.edges.length, 'tie');
  const groups = groupsOf(map);
  const [largest] = groups;
  const parts = largest
    ? `, in ${counted(groups.length, 'group')} by ${columnTitle(map.description.colour.column)}, the largest “${largest.label}” (${formatCount(largest.nodes)})`
    : '';
  return {
    short: `Map of a network: ${nodes} and ${ties}${parts}.`,
    long: [
      caption,
      `Drawn are ${nodes} as ${map.shape === null ? 'discs' : 'shapes'} and ${ties} between them${network.directed ? ', each from one to another' : ''}.`,
      ...groupSentences(map, groups),
      ...leadSentences(map),
    ].join(' '),
  };
}

interface Group {
  readonly label: string;
  readonly nodes: number;
  /** Its place among the colours. */
  readonly colour: number;
}

/** The groups that have a colour of their own, the largest first; none where colour is a number. */
function groupsOf(map: PreparedMap): Group[] {
  const section = legendSections({
    ...map,
    description: { ...map.description, legend: { ...map.description.legend, without: [] } },
  }).find(({ part }) => part === 'colour');
  if (section?.what !== 'groups') return [];
  return section.groups
    .filter(({ key, nodes }) => key !== undefined && nodes !== null)
    .map(({ label, nodes, colour }) => ({ label, nodes: nodes!, colour: map.colours.indexOf(colour!) }))
    .sort((a, b) => b.nodes - a.nodes);
}

function groupSentences(map: PreparedMap, groups: readonly Group[]): string[] {
  const column = columnTitle(map.description.colour.column);
  if (map.colourRange)
    return [
      `Colour is ${column}, from ${formatValue(map.colourRange[0])} to ${formatValue(map.colourRange[1])}.`,
    ];
  if (groups.length === 0) return [];
  const told = groups.slice(0, TOLD).map(({ label, nodes }) => `“${label}” (${formatCount(nodes)})`);
  const rest = map.nodes.length - groups.slice(0, TOLD).reduce((sum, { nodes }) => sum + nodes, 0);
  const others = rest > 0 ? `; ${formatCount(rest)} ${rest === 1 ? 'is' : 'are'} of others` : '';
  return [`Colours are groups by ${column}: ${told.join(', ')}${others}.`, ...betweenSentences(map, groups)];
}

/** How much of the weight of ties stays within groups, and between which two most goes. */
function betweenSentences(map: PreparedMap, groups: readonly Group[]): string[] {
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) =>
    numbersOf(map.network.edges, name),
  );
  const labels = new Map(groups.map(({ colour, label }) => [colour, label]));
  const between = new Map<string, { a: number; b: number; weight: number }>();
  let [all, within] = [0, 0];
  for (const e of map.edges) {
    // Self-ties stay within nodes, not within groups.
    if (source[e] === target[e]) continue;
    const [a, b] = [map.colour[source[e]], map.colour[target[e]]];
    all += weight[e];
    if (!labels.has(a) || !labels.has(b)) continue;
    if (a === b) within += weight[e];
    else {
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      const pair = between.get(key) ?? { a: Math.min(a, b), b: Math.max(a, b), weight: 0 };
      pair.weight += weight[e];
      between.set(key, pair);
    }
  }
  if (all === 0) return [];
  const share = `${Math.round((100 * within) / all)} % of the weight of all ties stays within these groups`;
  const most = [...between.values()].sort((x, y) => y.weight - x.weight || x.a - y.a || x.b - y.b).at(0);
  if (!most) return [`${share}.`];
  return [`${share}; between groups most goes between “${labels.get(most.a)}” and “${labels.get(most.b)}”.`];
}

/** Which nodes are the largest. */
function leadSentences(map: PreparedMap): string[] {
  const { column } = map.description.size;
  const value = map.network.nodes[column];
  if (!ArrayBuffer.isView(value) || map.nodes.length === 0) return [];
  const numbers = numbersOf(map.network.nodes, column);
  const first = [...map.nodes].sort((a, b) => numbers[b] - numbers[a] || a - b).slice(0, LED);
  if (!(numbers[first[0]] > numbers[first.at(-1)!])) return [];
  const told = first.map((v) => `${map.labels[v]} (${formatValue(numbers[v])})`);
  return [`The largest by ${columnTitle(column)} are ${told.join(', ')}.`];
}
