import type { MapColour } from '@pebble/contract';
import { isCategory } from '../../measures/columns';
import { isNumbered } from '../../network/groupCodes';
import { numbersOf } from '../../network/tables';
import {
  CATEGORY_COLOURS,
  CATEGORY_GREYS,
  FURTHER_COLOURS,
  OTHER_COLOUR,
  OTHER_GREY,
  RAMP_STEPS,
  rampColour,
} from './palette';
import type { MapNetwork } from '../network/mapNetwork';
import { middledShare, rangeOf, risingShare } from './shares';

/** One entry of the colour legend. */
export interface ColourGroup {
  /** Value of the category, or -1 for all that share the last colour. */
  readonly value: number;
  readonly colour: string;
  readonly nodes: number;
  /** Handle of the node with the highest size value; it stands for the group. */
  readonly leader: string;
  /** What the category is called, where it is written and not computed. */
  readonly name?: string;
}

export interface NodeColours {
  /** Index into `colours`, by node of the network. */
  readonly colour: Uint8Array;
  readonly colours: readonly string[];
  readonly groups: readonly ColourGroup[];
  /** Least and highest value when the colour is a number. */
  readonly colourRange: readonly [number, number] | null;
  /** 1 for nodes that are pale since it is not sure what they are; null where none are. */
  readonly unsure: Uint8Array | null;
}

/**
 * The colours of the shown nodes by a category, or by a number.
 * @param leading whose highest value names a group
 */
export function colourNodes(
  network: MapNetwork,
  nodes: Uint32Array,
  description: MapColour,
  leading: ArrayLike<number>,
  labels: readonly string[],
): NodeColours {
  const { column } = description;
  const written = network.nodes[column];
  if (Array.isArray(written)) {
    const { codes, names } = codesOf(written as readonly string[]);
    return byCategory(network, nodes, { codes, names }, description, leading, labels);
  }
  const value = numbersOf(network.nodes, column);
  if (isCategory(column))
    return byCategory(network, nodes, { codes: value, names: null }, description, leading, labels);
  return byNumber(network, nodes, value, description);
}

function byNumber(
  { nodeCount }: MapNetwork,
  nodes: Uint32Array,
  value: ArrayLike<number>,
  { ramp, reversed, middle }: MapColour,
): NodeColours {
  const colour = new Uint8Array(nodeCount);
  const range = rangeOf(value, nodes);
  const share = ramp === 'two-sided' ? middledShare(range, middle) : risingShare(range);
  const none = RAMP_STEPS;
  for (const v of nodes) {
    const own = share.of(value[v]);
    colour[v] = Number.isNaN(own) ? none : Math.round(own * (RAMP_STEPS - 1));
  }
  const colours = Array.from({ length: RAMP_STEPS }, (_, i) => {
    const place = i / (RAMP_STEPS - 1);
    return rampColour(reversed ? 1 - place : place, ramp);
  });
  return { colour, colours: [...colours, OTHER_COLOUR], groups: [], colourRange: share.ends, unsure: null };
}

/** Numbers for written categories: 1 for the one that most nodes have; nodes without one count as the last. */
function codesOf(written: readonly string[]): { codes: Float64Array; names: string[] } {
  const count = new Map<string, number>();
  for (const name of written) count.set(name, (count.get(name) ?? 0) + 1);
  const names = categoryOrder(count);
  const code = new Map(names.map((name, i) => [name, i + 1]));
  return { codes: Float64Array.from(written, (name) => code.get(name) ?? NO_CATEGORY), names };
}

/**
 * The order in which categories have their colours: groups that have numbers for names by these, so that they have one colour in every slice;
 * others by how many nodes they have.
 */
export function categoryOrder(count: ReadonlyMap<string, number>): string[] {
  const names = [...count.keys()].filter((name) => name !== '');
  const numbers = names.map(Number);
  const last = Math.max(0, ...numbers);
  if (names.every(isNumbered) && numbers.every((number) => number > 0) && last <= MOST_NUMBERED)
    return Array.from({ length: last }, (_, i) => String(i + 1));
  return names.sort((a, b) => count.get(b)! - count.get(a)! || (a < b ? -1 : 1));
}

/** Numbers above this are no numbering of groups. */
const MOST_NUMBERED = 1e6;

/** Stands for a node without a category. */
const NO_CATEGORY = 1e9;

interface Categories {
  /** 1 for the largest. */
  readonly codes: ArrayLike<number>;
  /** What they are called, where they are written. */
  readonly names: readonly string[] | null;
}

/** The largest categories, and those that were given one by hand, get a colour of their own; a category keeps it whatever part is shown. */
function byCategory(
  network: MapNetwork,
  nodes: Uint32Array,
  { codes, names }: Categories,
  { chosen, order, most, palette, unsure }: MapColour,
  leading: ArrayLike<number>,
  labels: readonly string[],
): NodeColours {
  const isGrey = palette === 'greys';
  const usual = (isGrey ? CATEGORY_GREYS : [...CATEGORY_COLOURS, ...FURTHER_COLOURS]).slice(0, most);
  const nameOf = (value: number): string => names?.[value - 1] ?? String(value);
  const whole = new Map<number, number>();
  for (let v = 0; v < network.nodeCount; v++) whole.set(codes[v], (whole.get(codes[v]) ?? 0) + 1);
  // Groups of one are nobody's group and keep the last colour, unless all are of one.
  const least = [...whole.values()].some((count) => count > 1) ? 2 : 1;
  const colours: string[] = [];
  const place = new Map<number, number>();
  for (const value of [...whole.keys()].sort((a, b) => a - b)) {
    const own = chosen[nameOf(value)];
    if (value === NO_CATEGORY || colours.length > 200) continue;
    if (own === undefined && (value > usual.length || whole.get(value)! < least)) continue;
    place.set(value, colours.push(own ?? usual[value - 1]) - 1);
  }
  const last = colours.push(isGrey ? OTHER_GREY : OTHER_COLOUR) - 1;
  const colour = new Uint8Array(network.nodeCount);
  const inside = new Map<number, { nodes: number; leader: number }>();
  const isUnsure = unsureNodes(network, unsure);
  for (const v of nodes) {
    const isSure = isUnsure?.[v] !== 1 || unsure?.how === 'pale';
    const key = isSure && place.has(codes[v]) ? codes[v] : -1;
    colour[v] = key === -1 ? last : place.get(key)!;
    const group = inside.get(key);
    if (!group) inside.set(key, { nodes: 1, leader: v });
    else {
      group.nodes++;
      if (leading[v] > leading[group.leader]) group.leader = v;
    }
  }
  const groups = [...inside]
    .map(([value, group]) => ({
      value,
      colour: colours[value === -1 ? last : place.get(value)!],
      nodes: group.nodes,
      leader: labels[group.leader],
      ...(names && value !== -1 ? { name: nameOf(value) } : {}),
    }))
    .sort(inOrder(order));
  return {
    colour,
    colours,
    groups,
    colourRange: null,
    unsure: unsure?.how === 'pale' ? isUnsure : null,
  };
}

/** What a group is called in a description: the value of its category. */
export function groupKey({ name, value }: Pick<ColourGroup, 'name' | 'value'>): string {
  return name ?? String(value);
}

/** Groups in an order that was given by hand, the others after them by their size; all others together are last. */
function inOrder(order: readonly string[]): (a: ColourGroup, b: ColourGroup) => number {
  const ranks = new Map(order.map((key, rank) => [key, rank]));
  const rank = (group: ColourGroup): number =>
    group.value === -1 ? Infinity : (ranks.get(groupKey(group)) ?? order.length + group.value);
  return (a, b) => (rank(a) === rank(b) ? 0 : rank(a) - rank(b));
}

/** 1 for nodes of which a column says too little; null where it is not asked. */
function unsureNodes(network: MapNetwork, unsure: MapColour['unsure']): Uint8Array | null {
  if (!unsure || !ArrayBuffer.isView(network.nodes[unsure.column])) return null;
  const sure = numbersOf(network.nodes, unsure.column);
  return Uint8Array.from({ length: network.nodeCount }, (_, v) => (sure[v] < unsure.below ? 1 : 0));
}
