import { neighbourRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { Random } from '../../random';
import { Attraction, type AttractionSettings } from './attraction';
import type { Places } from '../common/running';
import type { Beginning } from '../kind';

/** A level with fewer nodes is arranged from scratch. */
const SMALLEST = 60;
/** Levels end when one has more than this share of the nodes of the one before. */
const HARDLY_SMALLER = 0.85;
const ROUNDS = [200, 60];

/**
 * A beginning for an arrangement by attraction: the graph is made smaller again and again by putting tied nodes together, the smallest is
 * arranged, and each larger one begins where the smaller one stands (Hu 2005, Mathematica Journal 10). Large graphs unfold in a few rounds.
 * Yields after each round, and returns where the nodes begin.
 */
export function* multilevelStart(graph: Graph, settings: AttractionSettings): Generator<Beginning, Places> {
  const chance = new Random(settings.seed);
  const levels: { graph: Graph; parent: Uint32Array }[] = [];
  let coarse = graph;
  let rows = withoutSelfLoops(neighbourRows(graph));
  while (coarse.nodeCount > SMALLEST) {
    const next = matched(rows, chance);
    if (next.rows.nodeCount > coarse.nodeCount * HARDLY_SMALLER) break;
    levels.push({ graph: coarse, parent: next.parent });
    rows = next.rows;
    coarse = graphOfRows(rows);
  }
  const work = levels.slice(1).reduce((sum, level) => sum + level.graph.nodeCount, coarse.nodeCount);
  let done = 0;
  function* run(
    level: Graph,
    start: Places | null,
    rounds: number,
    above: number,
  ): Generator<Beginning, Places> {
    const layout = new Attraction(level, { ...settings, start });
    while (!layout.atRest && layout.iterations < rounds) {
      layout.iterate();
      const share = (done + (level.nodeCount * layout.iterations) / rounds) / work;
      yield { share, places: () => spread(layout, levels.slice(0, above)) };
    }
    done += level.nodeCount;
    return layout;
  }
  let places = yield* run(coarse, null, ROUNDS[0], levels.length);
  for (let i = levels.length - 1; i >= 0; i--) {
    const { graph: finer, parent } = levels[i];
    const grown = Math.sqrt(finer.nodeCount / Math.max(1, places.x.length));
    const start = {
      x: Float64Array.from(parent, (p) => places.x[p] * grown + (chance.real() - 0.5) * 4),
      y: Float64Array.from(parent, (p) => places.y[p] * grown + (chance.real() - 0.5) * 4),
    };
    // The largest is arranged by who asked for the beginning.
    places = i === 0 ? start : yield* run(finer, start, ROUNDS[1], i);
  }
  return places;
}

/** Where the nodes of the finest level stand by the places of a coarser one. */
function spread(places: Places, levels: readonly { readonly parent: Uint32Array }[]): Places {
  return levels.reduceRight<Places>(
    ({ x, y }, { parent }) => ({
      x: Float64Array.from(parent, (p) => x[p]),
      y: Float64Array.from(parent, (p) => y[p]),
    }),
    places,
  );
}

/** Puts each node together with the neighbour of fewest ties that is still free; a node left alone goes with any neighbour's pair. */
function matched(rows: Csr, chance: Random): { rows: Csr; parent: Uint32Array } {
  const { nodeCount: n, offset, neighbour } = rows;
  const parent = new Uint32Array(n).fill(0xffffffff);
  const free = 0xffffffff;
  let count = 0;
  const degree = (v: number): number => offset[v + 1] - offset[v];
  for (const v of chance.shuffle(Uint32Array.from({ length: n }, (_, i) => i))) {
    if (parent[v] !== free) continue;
    let best = -1;
    let taken = -1;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      if (parent[u] !== free) {
        if (taken < 0 || degree(u) > degree(taken)) taken = u;
      } else if (best < 0 || degree(u) < degree(best)) best = u;
    }
    if (best >= 0) parent[v] = parent[best] = count++;
    else if (taken >= 0) parent[v] = parent[taken];
    else parent[v] = count++;
  }
  const { source, target, weight } = graphOfRows(rows);
  const merged = {
    nodeCount: count,
    source: source.map((v) => parent[v]),
    target: target.map((v) => parent[v]),
    weight,
  };
  return { parent, rows: withoutSelfLoops(neighbourRows(merged)) };
}

/** Each tie of rows once. */
function graphOfRows({ nodeCount, offset, neighbour, weight }: Csr): Graph {
  const ties = neighbour.length / 2;
  const ends = {
    source: new Uint32Array(ties),
    target: new Uint32Array(ties),
    weight: new Float64Array(ties),
  };
  let at = 0;
  for (let v = 0; v < nodeCount; v++)
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      if (neighbour[i] < v) continue;
      ends.source[at] = v;
      ends.target[at] = neighbour[i];
      ends.weight[at++] = weight[i];
    }
  return { nodeCount, ...ends };
}
