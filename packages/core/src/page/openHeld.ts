import type { Condition, Shown } from '@pebble/contract';
import { prepareMap, type PreparedMap } from '../map/scene/prepare';
import { shownPart } from '../map/description/shown';
import { drawnTies } from '../map/marks/ties/drawnTies';
import type { DailyTieCounts } from '../map/network/dailyTieCounts';
import type { MapNetwork } from '../map/network/mapNetwork';
import { weighedWithin } from '../map/network/weighedWithin';
import { numbersOf, type TableColumns } from '../network/tables';
import type { HeldColumn, HeldMap } from './heldMap';

/** A map out of a page, ready to be drawn. */
export interface OpenMap {
  readonly map: PreparedMap;
  readonly x: Float32Array;
  readonly y: Float32Array;
}

const DAY = 86_400_000;

/** Makes of what a page holds the map that it was. */
export function openHeld(held: HeldMap): OpenMap {
  const { nodeCount, nodes, pale } = held;
  const network: MapNetwork = {
    nodeCount,
    directed: held.directed,
    titles: held.titles,
    dailyTieCounts: daysOf(held.days),
    nodes: nodeTable(held),
    edges: {
      source: Uint32Array.from(held.source),
      target: Uint32Array.from(held.target),
      ...Object.fromEntries(
        Object.entries(held.tieColumns).map(([name, column]) => [name, columnOf(column)]),
      ),
    },
  };
  const { description } = held;
  const here: Condition = { what: 'chosen', nodes: [...nodes], not: false };
  const show: Shown = { ...description.show, where: { joined: 'and', conditions: [here] } };
  const map = prepareMap(network, { ...description, show });
  return {
    map: { ...map, description, widthBounds: held.widthBounds, pale: paleOf(map, pale) },
    x: Float32Array.from(spread(held.x, held, 0)),
    y: Float32Array.from(spread(held.y, held, 0)),
  };
}

/** The part of a map that a reader wants to see: sizes, colours and places stay as they are. */
export function partOfMap(map: PreparedMap, show: Shown): PreparedMap {
  const isHere = new Uint8Array(map.network.nodeCount);
  for (const v of map.nodes) isHere[v] = 1;
  const part = shownPart(map.network, show);
  const nodes = part.nodes.filter((v) => isHere[v] === 1);
  const network = weighedWithin(map.network, show.period);
  const isLeft = new Uint8Array(map.network.nodeCount);
  for (const v of nodes) isLeft[v] = 1;
  const left = (v: number): boolean => isLeft[v] === 1;
  const count = new Map<string, number>();
  for (const v of nodes) {
    const colour = map.colours[map.colour[v]];
    count.set(colour, (count.get(colour) ?? 0) + 1);
  }
  return {
    ...map,
    network,
    nodes,
    edges: part.edges,
    drawn: drawnTies(part.edges, numbersOf(network.edges, 'weight')),
    groups: map.groups.map((group) => ({ ...group, nodes: count.get(group.colour) ?? 0 })),
    paintOrder: map.paintOrder.filter(left),
    namesOrder: map.namesOrder.filter(left),
    alsoNamed: { ...map.alsoNamed, nodes: map.alsoNamed.nodes.filter(left) },
    hiddenNodes: map.nodes.length - nodes.length,
    hiddenEdges: map.edges.length - part.edges.length,
  };
}

function nodeTable(held: HeldMap): TableColumns {
  return {
    handle: spread(held.labels, held, ''),
    name: new Array<string>(held.nodeCount).fill(''),
    ...Object.fromEntries(
      Object.entries(held.columns).map(([name, column]) => [
        name,
        isText(column) ? spread(column, held, '') : Float64Array.from(spread(column, held, null), numberOf),
      ]),
    ),
  };
}

/** Values of the nodes that are there, by their places in the network. */
function spread<T>(values: readonly T[], { nodeCount, nodes }: HeldMap, nothing: T): T[] {
  const all = new Array<T>(nodeCount).fill(nothing);
  nodes.forEach((v, i) => (all[v] = values[i]));
  return all;
}

function columnOf(column: HeldColumn): TableColumns[string] {
  return isText(column) ? column : Float64Array.from(column, numberOf);
}

function isText(column: HeldColumn): column is readonly string[] {
  return typeof column[0] === 'string';
}

const numberOf = (value: number | null): number => value ?? NaN;

function paleOf(map: PreparedMap, pale: readonly number[]): Uint8Array | null {
  if (pale.length === 0) return map.pale;
  const both = map.pale?.slice() ?? new Uint8Array(map.network.nodeCount);
  for (const v of pale) both[v] = 1;
  return both;
}

function daysOf(days: HeldMap['days']): DailyTieCounts | null {
  if (!days) return null;
  return {
    edge: Uint32Array.from(days.tie),
    day: Float64Array.from(days.day, (day) => days.first + day * DAY),
    messages: Uint32Array.from(days.messages),
  };
}
