import { numbersOf } from '../../../network/tables';
import type { MapNetwork } from '../../network/mapNetwork';
import type { ScreenNodes } from '../../scene/screenNodes';
import type { Pie } from '../../scene/scene';

/** What part of the ties of a node leads to nodes of one colour. */
export interface PieSlice {
  /** Index into the colours of the map. */
  readonly colour: number;
  /** Above 0, at most 1; those of a node add up to 1. */
  readonly share: number;
}

/** A node that is smaller on the screen, in pixels, is drawn without its pie, which could not be read. */
const SMALLEST = 4;
/** Round the pie there is a rim in the colour of the node itself. */
const INSIDE = 0.76;

/**
 * For each node what its shown ties lead to, by their weight, either way: the groups at their other ends, in the order of the colours. Nodes
 * without ties have none; ties of a node to itself do not count.
 * @param edges the shown ties
 * @param colour of each node, an index into the colours
 */
export function pieSlices(
  { nodeCount, edges: table }: MapNetwork,
  edges: Uint32Array,
  colour: Uint8Array,
): ReadonlyMap<number, readonly PieSlice[]> {
  const source = numbersOf(table, 'source');
  const target = numbersOf(table, 'target');
  const weight = numbersOf(table, 'weight');
  const colours = colour.reduce((most, one) => Math.max(most, one), 0) + 1;
  const sums = new Float64Array(nodeCount * colours);
  for (const e of edges) {
    const [a, b] = [source[e], target[e]];
    if (a === b) continue;
    sums[a * colours + colour[b]] += weight[e];
    sums[b * colours + colour[a]] += weight[e];
  }
  const pies = new Map<number, PieSlice[]>();
  for (let v = 0; v < nodeCount; v++) {
    const own = sums.subarray(v * colours, (v + 1) * colours);
    const all = own.reduce((sum, one) => sum + one, 0);
    if (all === 0) continue;
    const slices: PieSlice[] = [];
    own.forEach((sum, c) => void (sum > 0 && slices.push({ colour: c, share: sum / all })));
    pies.set(v, slices);
  }
  return pies;
}

/** The pies of some nodes on the screen, each inside of a rim in the colour of its node. */
export function buildPies(
  nodes: Iterable<number>,
  slices: ReadonlyMap<number, readonly PieSlice[]> | null,
  colours: readonly string[],
  { x, y, radius }: ScreenNodes,
): Pie[] {
  if (!slices) return [];
  const pies: Pie[] = [];
  for (const v of nodes) {
    const own = slices.get(v);
    if (!own || radius[v] < SMALLEST) continue;
    let from = -Math.PI / 2;
    pies.push({
      x: x[v],
      y: y[v],
      radius: radius[v] * INSIDE,
      slices: own.map(({ colour, share }) => {
        const until = from + 2 * Math.PI * share;
        const slice = { fill: colours[colour], from, until };
        from = until;
        return slice;
      }),
    });
  }
  return pies;
}
