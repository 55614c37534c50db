import { neighbourRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';
import { Random } from '../random';
import { Attraction, type AttractionSettings } from './attraction';
import type { Places } from './running';

/** A level with fewer nodes is arranged from scratch. */
const SMALLEST = 60;
/** Levels end when one has more than this share of the nodes of the one before. */
const HARDLY_SMALLER = 0.85;
const ROUNDS = [200, 60];

/**
 * A beginning for an arrangement by attraction: the graph is made smaller again and again by putting tied nodes together, the smallest is
 * arranged, and each larger one begins where the smaller one stands (Hu 2005, Mathematica Journal 10). Large graphs unfold in a few rounds.
 * @param progress is told how far it is, 0 to 1; may throw to stop
 */
export function multilevelStart(
  graph: Graph,
  settings: AttractionSettings,
  progress?: (share: number) => void,
): Places {
  const chance = new Random(settings.seed);
  const levels: { graph: Graph; parent: Uint32Array }[] = [];
  let coarse = graph;
  while (coarse.nodeCount > SMALLEST) {
    const { graph: next, parent } = matched(coarse, chance);
    if (next.nodeCount > coarse.nodeCount * HARDLY_SMALLER) break;
    levels.push({ graph: coarse, parent });
    coarse = next;
  }
  const work = levels.slice(1).reduce((sum, level) => sum + level.graph.nodeCount, coarse.nodeCount);
  let done = 0;
  const run = (level: Graph, start: Places | null, rounds: number): Places => {
    const layout = new Attraction(level, { ...settings, start });
    while (!layout.atRest && layout.iterations < rounds) {
      layout.iterate();
      progress?.((done + (level.nodeCount * layout.iterations) / rounds) / work);
    }
    done += level.nodeCount;
    return layout;
  };
  let places = run(coarse, null, ROUNDS[0]);
  for (const { graph: finer, parent } of levels.reverse()) {
    const grown = Math.sqrt(finer.nodeCount / Math.max(1, places.x.length));
    const start = {
      x: Float64Array.from(parent, (p) => places.x[p] * grown + (chance.real() - 0.5) * 4),
      y: Float64Array.from(parent, (p) => places.y[p] * grown + (chance.real() - 0.5) * 4),
    };
    // The largest is arranged by who asked for the beginning.
    places = finer === graph ? start : run(finer, start, ROUNDS[1]);
  }
  return places;
}

/** Puts each node together with the neighbour of fewest ties that is still free; a node left alone goes with any neighbour's pair. */
function matched(graph: Graph, chance: Random): { graph: Graph; parent: Uint32Array } {
  const { nodeCount: n, offset, neighbour } = withoutSelfLoops(neighbourRows(graph));
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
  const source = Uint32Array.from(graph.source, (v) => parent[v]);
  const target = Uint32Array.from(graph.target, (v) => parent[v]);
  const rows = withoutSelfLoops(neighbourRows({ nodeCount: count, source, target, weight: graph.weight }));
  const ends: [number[], number[], number[]] = [[], [], []];
  for (let v = 0; v < count; v++)
    for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++)
      if (rows.neighbour[i] > v) {
        ends[0].push(v);
        ends[1].push(rows.neighbour[i]);
        ends[2].push(rows.weight[i]);
      }
  return {
    parent,
    graph: {
      nodeCount: count,
      source: Uint32Array.from(ends[0]),
      target: Uint32Array.from(ends[1]),
      weight: Float64Array.from(ends[2]),
    },
  };
}
