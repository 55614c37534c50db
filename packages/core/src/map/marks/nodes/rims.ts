import type { Rim } from '@pebble/contract';
import { columnTitle } from '../../../measures/columns';
import { numbersOf, textsIn } from '../../../network/tables';
import { formatValue } from '../../../words/formatValue';
import type { MapNetwork } from '../../network/mapNetwork';
import { rangeOf } from '../../style/shares';

/** Width of the rims of each class, in pixels at scale 1; nodes of class 0 have none that says something. */
export const RIM_WIDTHS = [0, 1.2, 2.2, 3.6];
/** The class of nodes that have one value of a category. */
const CHOSEN = 2;

/** One entry of the legend of rims. */
export interface RimGroup {
  readonly name: string;
  readonly width: number;
  readonly nodes: number;
}

/**
 * The rims of the shown nodes: thicker the higher a number is, in four steps that grow like its root, of which the lowest has none, or
 * round those that have one value of a category.
 */
export function rimNodes(
  network: MapNetwork,
  nodes: Uint32Array,
  rim: Rim | null,
): { rims: Uint8Array | null; rimGroups: readonly RimGroup[] } {
  if (rim === null || !(rim.column in network.nodes)) return { rims: null, rimGroups: [] };
  return rim.value === null
    ? byNumber(network, nodes, rim.column)
    : byValue(network, nodes, rim.column, rim.value);
}

function byNumber(network: MapNetwork, nodes: Uint32Array, column: string): ReturnType<typeof rimNodes> {
  const value = numbersOf(network.nodes, column);
  const [least, most] = rangeOf(value, nodes);
  const classes = RIM_WIDTHS.length;
  const rims = new Uint8Array(network.nodeCount);
  if (most > least)
    for (const v of nodes) {
      const share = (value[v] - least) / (most - least);
      rims[v] = share > 0 ? Math.min(classes - 1, Math.floor(Math.sqrt(share) * classes)) : 0;
    }
  const rimGroups = RIM_WIDTHS.map((width, c) => {
    const inside = nodes.filter((v) => rims[v] === c);
    return { name: `from ${formatValue(rangeOf(value, inside)[0])}`, width, nodes: inside.length };
  });
  return { rims, rimGroups: rimGroups.slice(1).filter((group) => group.nodes > 0) };
}

function byValue(
  network: MapNetwork,
  nodes: Uint32Array,
  column: string,
  value: string,
): ReturnType<typeof rimNodes> {
  const texts = textsIn(network.nodes[column]);
  const rims = new Uint8Array(network.nodeCount);
  for (const v of nodes) rims[v] = texts[v] === value ? CHOSEN : 0;
  const within = nodes.filter((v) => rims[v] !== 0).length;
  return { rims, rimGroups: [{ name: value || 'without', width: RIM_WIDTHS[CHOSEN], nodes: within }] };
}

/** "thicker the higher messages", "round those whose kind is press" */
export function rimPhrase({ column, value }: Rim): string {
  const title = columnTitle(column);
  return value === null
    ? `thicker the higher ${title}`
    : `round those whose ${title} is ${value || 'missing'}`;
}
