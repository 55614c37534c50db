import type { MapDescription } from '@pebble/contract';
import { nodeLabels, numbersOf, type TableColumns } from '../network/tables';
import { isCategory } from '../network/columns';
import { CATEGORY_COLOURS, OTHER_COLOUR, RAMP_STEPS, rampColour } from './palette';
import { shownPart } from './shown';

/** A network as the map needs it: its node table and its edge table. */
export interface MapNetwork {
  readonly nodeCount: number;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
}

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

/** Everything about a map that depends on its description and not on where one looks. */
export interface PreparedMap {
  readonly network: MapNetwork;
  readonly description: MapDescription;
  readonly nodes: Uint32Array;
  readonly edges: Uint32Array;
  /** 1 for nodes that are shown pale, by node of the network; null where none are. */
  readonly pale: Uint8Array | null;
  /** False for a network whose ties have no direction; they get no arrowheads. */
  readonly directed: boolean;
  /** What each node of the network is called. */
  readonly labels: readonly string[];
  /** By node of the network, in pixels at scale 1; 0 for nodes that are not shown. */
  readonly radius: Float32Array;
  /** Index into `colours`, by node of the network. */
  readonly colour: Uint8Array;
  readonly colours: readonly string[];
  readonly groups: readonly ColourGroup[];
  /** Least and highest value when the colour is a number. */
  readonly colourRange: readonly [number, number] | null;
  readonly sizeRange: readonly [number, number];
  /** Shown nodes in the order in which they are painted: the smaller over the larger. */
  readonly paintOrder: Uint32Array;
  /** Shown nodes by falling value of the names' column. */
  readonly namesOrder: Uint32Array;
  readonly hiddenNodes: number;
  readonly hiddenEdges: number;
}

export function prepareMap(network: MapNetwork, description: MapDescription): PreparedMap {
  const { nodes, edges, pale } = shownPart(network, description.show);
  const size = sizes(network, nodes, description);
  const labels = nodeLabels(network.nodes);
  const paint = colours(network, nodes, description, size.value, labels);
  const rank = numbersOf(network.nodes, description.names.column);
  const paintOrder = Uint32Array.from(nodes).sort((a, b) => size.radius[b] - size.radius[a] || a - b);
  const namesOrder = Uint32Array.from(nodes).sort((a, b) => rank[b] - rank[a] || a - b);
  return {
    network,
    description,
    nodes,
    edges,
    directed: 'inDegree' in network.nodes || !('degree' in network.nodes),
    labels,
    pale,
    radius: size.radius,
    sizeRange: size.range,
    ...paint,
    paintOrder,
    namesOrder,
    hiddenNodes: network.nodeCount - nodes.length,
    hiddenEdges: network.edges['source'].length - edges.length,
  };
}

function sizes(
  network: MapNetwork,
  nodes: Uint32Array,
  { size }: MapDescription,
): { radius: Float32Array; range: readonly [number, number]; value: ArrayLike<number> } {
  const value = numbersOf(network.nodes, size.column);
  const range = rangeOf(value, nodes);
  const radius = new Float32Array(network.nodeCount);
  for (const v of nodes) radius[v] = radiusFor(value[v], range, size);
  return { radius, range, value };
}

/** The radius of a node with this value; the least value has the smallest radius, never 0. Where all are equal they are of middle size. */
export function radiusFor(
  value: number,
  [least, most]: readonly [number, number],
  size: MapDescription['size'],
): number {
  const span = Math.max(size.largest, size.smallest) - size.smallest;
  if (!(most > least)) return size.smallest + span / 3;
  const share = Math.min(1, Math.max(0, (value - least) / (most - least)));
  const grown =
    size.growth === 'linear'
      ? share
      : size.growth === 'square root'
        ? Math.sqrt(share)
        : Math.log1p(share * (most - least)) / Math.log1p(Math.max(most - least, 1e-9));
  return size.smallest + span * (Number.isFinite(grown) ? grown : 0);
}

function rangeOf(value: ArrayLike<number>, nodes: Uint32Array): readonly [number, number] {
  let least = Infinity;
  let most = -Infinity;
  for (const v of nodes) {
    if (value[v] < least) least = value[v];
    if (value[v] > most) most = value[v];
  }
  return least <= most ? [least, most] : [0, 0];
}

type Paint = Pick<PreparedMap, 'colour' | 'colours' | 'groups' | 'colourRange'>;

function colours(
  network: MapNetwork,
  nodes: Uint32Array,
  { colour: { column } }: MapDescription,
  leading: ArrayLike<number>,
  labels: readonly string[],
): Paint {
  const colour = new Uint8Array(network.nodeCount);
  const written = network.nodes[column];
  if (Array.isArray(written)) {
    const { codes, names } = codesOf(written as readonly string[]);
    const paint = categoryColours(network, nodes, codes, leading, labels, colour);
    return { ...paint, groups: paint.groups.map((group) => ({ ...group, name: names[group.value - 1] })) };
  }
  const value = numbersOf(network.nodes, column);
  if (isCategory(column)) return categoryColours(network, nodes, value, leading, labels, colour);
  const range = rangeOf(value, nodes);
  const width = Math.sqrt(Math.max(range[1] - range[0], 1e-12));
  for (const v of nodes) {
    colour[v] = Math.round((Math.sqrt(Math.max(0, value[v] - range[0])) / width) * (RAMP_STEPS - 1));
  }
  const ramp = Array.from({ length: RAMP_STEPS }, (_, i) => rampColour(i / (RAMP_STEPS - 1)));
  return { colour, colours: ramp, groups: [], colourRange: range };
}

/** Numbers for written categories: 1 for the one that most nodes have; nodes without one count as the last. */
function codesOf(written: readonly string[]): { codes: Float64Array; names: string[] } {
  const count = new Map<string, number>();
  for (const name of written) count.set(name, (count.get(name) ?? 0) + 1);
  const names = [...count.keys()]
    .filter((name) => name !== '')
    .sort((a, b) => count.get(b)! - count.get(a)! || (a < b ? -1 : 1));
  const code = new Map(names.map((name, i) => [name, i + 1]));
  return { codes: Float64Array.from(written, (name) => code.get(name) ?? names.length + 1000), names };
}

/** The largest eight categories get a colour of their own; a category keeps its colour whatever part is shown. */
function categoryColours(
  network: MapNetwork,
  nodes: Uint32Array,
  value: ArrayLike<number>,
  leading: ArrayLike<number>,
  labels: readonly string[],
  colour: Uint8Array,
): Paint {
  const most = CATEGORY_COLOURS.length;
  const whole = new Map<number, number>();
  for (let v = 0; v < network.nodeCount; v++) whole.set(value[v], (whole.get(value[v]) ?? 0) + 1);
  // Groups of one are nobody's group and keep the last colour, unless all are of one.
  const least = [...whole.values()].some((count) => count > 1) ? 2 : 1;
  const inside = new Map<number, { nodes: number; leader: number }>();
  for (const v of nodes) {
    const key = value[v] <= most && whole.get(value[v])! >= least ? value[v] : -1;
    colour[v] = key === -1 ? most : key - 1;
    const group = inside.get(key);
    if (!group) inside.set(key, { nodes: 1, leader: v });
    else {
      group.nodes++;
      if (leading[v] > leading[group.leader]) group.leader = v;
    }
  }
  const groups = [...inside]
    .map(([key, group]) => ({
      value: key,
      colour: key === -1 ? OTHER_COLOUR : CATEGORY_COLOURS[key - 1],
      nodes: group.nodes,
      leader: labels[group.leader],
    }))
    .sort((a, b) => (a.value === -1 ? 1 : b.value === -1 ? -1 : a.value - b.value));
  return { colour, colours: [...CATEGORY_COLOURS, OTHER_COLOUR], groups, colourRange: null };
}
