import type { MapDescription } from '@pebble/contract';
import { isCategory } from '../../measures/columns';
import { groupCodes } from '../../network/groupCodes';
import { graphOf, nodeLabels, numbersOf } from '../../network/tables';
import { tieKinds, type TieKinds } from '../../network/tieKinds';
import { isDirected, type MapNetwork } from '../network/mapNetwork';
import { publishedTitles, type PublishedNames } from '../../people/publishedNodes';
import { alsoNamed, type AlsoNamed } from '../marks/names/alsoNamed';
import { colourNodes, type ColourGroup } from '../style/colours';
import type { BundledPaths } from '../marks/ties/bundling/bundledPaths';
import { drawnTies } from '../marks/ties/drawnTies';
import { weighedWithin } from '../network/weighedWithin';
import { picturesByNode } from '../marks/nodes/pictureNames';
import { pieSlices, type PieSlice } from '../marks/nodes/pies';
import { rimNodes, type RimGroup } from '../marks/nodes/rims';
import { shapeNodes, type ShapeGroup } from '../marks/nodes/shapes';
import { sizeNodes } from '../marks/nodes/sizes';
import { fitting, shownPart } from '../description/shown';
import { colourTies, type TieNumbers } from '../marks/ties/tieNumbers';
import { widthBounds, type WidthBounds } from '../marks/ties/tieWidths';

/** Everything about a map that depends on its description and not on where one looks. */
export interface PreparedMap {
  readonly network: MapNetwork;
  /** As it was given, but for names and colours of ties by a column that is not there. */
  readonly description: MapDescription;
  readonly nodes: Uint32Array;
  readonly edges: Uint32Array;
  /** Of the shown ties those that are drawn: all, or the strongest. */
  readonly drawn: Uint32Array;
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
  /** Shape of each node, by its place among the shapes; null where all are circles. */
  readonly shape: Uint8Array | null;
  readonly shapes: readonly ShapeGroup[];
  /** How thick a rim each node has, by its place among the widths of rims; null where they say nothing. */
  readonly rims: Uint8Array | null;
  readonly rimGroups: readonly RimGroup[];
  /** What is inside of each node where nodes are pies; null where they are not. */
  readonly pies: ReadonlyMap<number, readonly PieSlice[]> | null;
  /** The pictures of nodes where they are shown, by node; null where they are not. */
  readonly pictures: ReadonlyMap<number, string> | null;
  /** The group of each node by which ties are drawn together; null where they are not. */
  readonly bundles: Uint32Array | null;
  /** How ties run that are bundled freely; null where they are not, or as long as it is not worked out for the places. */
  readonly courses: BundledPaths | null;
  /** Of which kind each tie is, where they are coloured by it and have kinds. */
  readonly tieKinds: TieKinds | null;
  /** The colours of ties by a number, where they are coloured by one and have it. */
  readonly tieNumbers: TieNumbers | null;
  /** 1 for a tie beside which runs one the other way, by tie; null where they are not drawn apart. */
  readonly twoWay: Uint8Array | null;
  /** What weights make ties wider: those of all ties that weigh enough to be shown, so that a tie keeps its width whatever nodes are. */
  readonly widthBounds: WidthBounds;
  readonly sizeRange: readonly [number, number];
  /** Shown nodes in the order in which they are painted: the smaller over the larger. */
  readonly paintOrder: Uint32Array;
  /** Shown nodes that may be named, by falling value of the names' column. */
  readonly namesOrder: Uint32Array;
  readonly alsoNamed: AlsoNamed;
  readonly hiddenNodes: number;
  readonly hiddenEdges: number;
}

export function prepareMap(whole: MapNetwork, given: MapDescription): PreparedMap {
  const description = withKnownColumns(given, whole);
  const network = weighedWithin(whole, description.show.period);
  const { nodes, edges, pale } = shownPart(network, description.show);
  const size = sizeNodes(network, nodes, description.size);
  const labels = nodeLabels(network.nodes);
  const paint = colourNodes(network, nodes, description.colour, size.value, labels);
  const rank = numbersOf(network.nodes, description.names.column);
  const paintOrder = Uint32Array.from(nodes).sort((a, b) => size.radius[b] - size.radius[a] || a - b);
  const named = fitting(network, graphOf(network.nodeCount, network.edges), description.names.where);
  const namesOrder = (named ? nodes.filter((v) => named[v] === 1) : nodes.slice()).sort(
    (a, b) => rank[b] - rank[a] || a - b,
  );
  return {
    network,
    description,
    nodes,
    edges,
    widthBounds: widthBounds(numbersOf(whole.edges, 'weight'), description.show.atLeast),
    drawn: drawnTies(edges, numbersOf(network.edges, 'weight')),
    directed: isDirected(network),
    labels,
    pale: bothPale(pale, paint.unsure),
    radius: size.radius,
    sizeRange: size.range,
    colour: paint.colour,
    colours: paint.colours,
    groups: paint.groups,
    colourRange: paint.colourRange,
    ...shapeNodes(network, nodes, description.shape.column),
    ...rimNodes(network, nodes, description.shape.rim),
    pies: description.shape.pies && !paint.colourRange ? pieSlices(network, edges, paint.colour) : null,
    pictures:
      description.shape.pictures && !description.shape.pies
        ? picturesByNode(labels, network.pictures ?? [])
        : null,
    bundles: description.ties.form === 'bundled' ? bundleGroups(network, description) : null,
    courses: null,
    tieKinds: description.ties.colour === 'by kind' ? tieKinds(network.edges) : null,
    tieNumbers:
      description.ties.colour === 'by number'
        ? colourTies(network.edges, edges, description.ties.number)
        : null,
    twoWay: description.ties.form === 'straight' && description.ties.apart ? twoWayTies(network) : null,
    paintOrder,
    namesOrder,
    alsoNamed: alsoNamed(namesOrder, description.names.also ? description.names.count : 0, size.value, paint),
    hiddenNodes: network.nodeCount - nodes.length,
    hiddenEdges: network.edges['source'].length - edges.length,
  };
}

/** The same map with other names of nodes: those who have one lose their picture, and groups are called by who leads them then. */
export function withNames(map: PreparedMap, names: PublishedNames): PreparedMap {
  const { nodes, description, pictures } = map;
  const titles = publishedTitles(map.network.titles ?? {}, map.labels, names);
  const network = { ...map.network, titles };
  const labels = map.labels.map((label, v) => names[v] ?? label);
  const size = sizeNodes(network, nodes, description.size);
  const { groups } = colourNodes(network, nodes, description.colour, size.value, labels);
  return {
    ...map,
    network,
    labels,
    groups,
    pictures: pictures && new Map([...pictures].filter(([v]) => names[v] === null)),
  };
}

/**
 * Betweenness of a large network comes later than the rest: as long as it is not there, names go by what sizes do.
 * Ties that are to be coloured by a number that they do not have are grey.
 */
function withKnownColumns(description: MapDescription, { nodes, edges }: MapNetwork): MapDescription {
  const { names, size, ties } = description;
  return {
    ...description,
    names: names.column in nodes ? names : { ...names, column: size.column },
    ties:
      ties.colour === 'by number' && !ArrayBuffer.isView(edges[ties.number.column])
        ? { ...ties, colour: 'neutral' }
        : ties,
  };
}

function twoWayTies({ nodeCount, edges }: MapNetwork): Uint8Array {
  const source = numbersOf(edges, 'source');
  const target = numbersOf(edges, 'target');
  const known = new Set(Array.from(source, (a, e) => a * nodeCount + target[e]));
  return Uint8Array.from(source, (a, e) => (a !== target[e] && known.has(target[e] * nodeCount + a) ? 1 : 0));
}

/** Ties are drawn together by the groups that colour the map; where it is coloured by a number, by communities. */
function bundleGroups({ nodes }: MapNetwork, { colour: { column } }: MapDescription): Uint32Array | null {
  const groups = Array.isArray(nodes[column]) || isCategory(column) ? column : 'community';
  return groups in nodes ? groupCodes(nodes[groups]).of : null;
}

/** Nodes that are pale since they do not fit a filter, or since it is not sure what they are. */
function bothPale(a: Uint8Array | null, b: Uint8Array | null): Uint8Array | null {
  if (!a || !b) return a ?? b;
  return a.map((one, v) => one | b[v]);
}
