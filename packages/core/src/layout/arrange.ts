import type { LayoutSettings } from '@pebble/contract';
import { weakComponents, type Components } from '../graph/components';
import { keepPart } from '../graph/filter';
import type { Graph } from '../graph/graph';
import { Attraction } from './attraction';
import { removeOverlaps } from './overlaps';
import { packRound } from './pack';

/** Positions of all nodes, in pixels at scale 1; y grows downwards. */
export interface Arrangement {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly iterations: number;
  /** True when the layout came to rest by itself before its iterations were used up. */
  readonly cameToRest: boolean;
  /** Pairs of nodes that still overlap. */
  readonly overlaps: number;
}

/** The size of picture that an arrangement aims to fill when its nodes leave enough ground. */
const REFERENCE = { width: 980, height: 660 };
/** Share of the ground that nodes may cover. */
const COVER = 0.2;
const NODE_GAP = 2;
const PART_GAP = 16;

interface PartLayout {
  readonly node: Uint32Array;
  readonly layout: Attraction;
}

/**
 * Arranges a whole network: every component by attraction, the small ones packed round the largest, isolates apart in
 * an orderly band below. A generator, so that a picture can be shown between the rounds: it yields after every
 * iteration of a large component and returns the final arrangement.
 * @param radius of each node in pixels at scale 1; nodes will not overlap at these sizes
 */
export function* arranging(
  graph: Graph,
  radius: ArrayLike<number>,
  settings: LayoutSettings,
): Generator<{ iteration: number; preview: () => Arrangement }, Arrangement> {
  const components = weakComponents(graph);
  const parts = splitParts(graph, components, settings);
  let iterations = 0;
  let cameToRest = true;
  // Small parts first: they are done at once and can then be shown beside the growing large one.
  for (const part of [...parts].reverse()) {
    while (!part.layout.atRest && part.layout.iterations < settings.iterations) {
      part.layout.iterate();
      if (part === parts[0]) {
        iterations = part.layout.iterations;
        yield { iteration: iterations, preview: () => assemble(graph, parts, components, radius, 0, false) };
      }
    }
    if (!part.layout.atRest) cameToRest = false;
  }
  return { ...assemble(graph, parts, components, radius, iterations, true), cameToRest };
}

/** Arranges without pauses; see `arranging`. */
export function arrange(
  graph: Graph,
  radius: ArrayLike<number>,
  settings: LayoutSettings,
  progress?: (share: number) => void,
): Arrangement {
  const rounds = arranging(graph, radius, settings);
  for (;;) {
    const round = rounds.next();
    if (round.done) return round.value;
    progress?.(round.value.iteration / settings.iterations);
  }
}

/** One part for each component of two nodes or more, the largest first. */
function splitParts(graph: Graph, components: Components, settings: LayoutSettings): PartLayout[] {
  const members: number[][] = Array.from({ length: components.count }, () => []);
  for (let v = 0; v < graph.nodeCount; v++) members[components.of[v]].push(v);
  const edges: number[][] = Array.from({ length: components.count }, () => []);
  for (let e = 0; e < graph.source.length; e++) edges[components.of[graph.source[e]]].push(e);
  const { gravity, repulsion, seed } = settings;
  const makePart = (whole: Graph, node: Uint32Array): PartLayout => ({
    node,
    layout: new Attraction(whole, { gravity, repulsion, seed }),
  });
  const number = new Uint32Array(graph.nodeCount);
  return members
    .filter((nodes) => nodes.length > 1)
    .map((nodes, c) => {
      if (nodes.length > graph.nodeCount / 2) {
        const part = keepPart(
          graph,
          (v) => components.of[v] === c,
          () => true,
        );
        return makePart(part.graph, part.node);
      }
      nodes.forEach((v, i) => (number[v] = i));
      return makePart(
        {
          nodeCount: nodes.length,
          source: Uint32Array.from(edges[c], (e) => number[graph.source[e]]),
          target: Uint32Array.from(edges[c], (e) => number[graph.target[e]]),
          weight: Float64Array.from(edges[c], (e) => graph.weight[e]),
        },
        Uint32Array.from(nodes),
      );
    });
}

function assemble(
  graph: Graph,
  parts: readonly PartLayout[],
  components: Components,
  radius: ArrayLike<number>,
  iterations: number,
  final: boolean,
): Arrangement {
  const x = new Float64Array(graph.nodeCount);
  const y = new Float64Array(graph.nodeCount);
  let overlaps = 0;
  const placed = parts.map((part, i) => {
    const sized = sizePart(part, radius, i === 0, final);
    overlaps += sized.overlaps;
    return sized;
  });
  const [main, ...small] = placed;
  const taken = main
    ? Array.from(parts[0].node, (v, j) => ({ x: main.x[j], y: main.y[j], radius: radius[v] + PART_GAP }))
    : [];
  const spots = packRound(
    taken,
    small.map((part) => part.reach),
    PART_GAP / 2,
  );
  parts.forEach((part, i) => {
    const spot = i === 0 ? { x: 0, y: 0 } : spots[i - 1];
    part.node.forEach((v, j) => {
      x[v] = placed[i].x[j] + spot.x;
      y[v] = placed[i].y[j] + spot.y;
    });
  });
  const isolates: number[] = [];
  for (let v = 0; v < graph.nodeCount; v++) if (components.size[components.of[v]] === 1) isolates.push(v);
  parkBelow(
    isolates,
    x,
    y,
    radius,
    parts.flatMap((part) => [...part.node]),
  );
  return { x: Float32Array.from(x), y: Float32Array.from(y), iterations, cameToRest: false, overlaps };
}

interface PlacedPart {
  x: Float64Array;
  y: Float64Array;
  /** Distance of the farthest rim from the middle. */
  reach: number;
  overlaps: number;
}

/** Scales one part so that its nodes have room, sets its middle to 0, and moves overlapping nodes apart. */
function sizePart(
  { node, layout }: PartLayout,
  radius: ArrayLike<number>,
  main: boolean,
  final: boolean,
): PlacedPart {
  const x = Float64Array.from(layout.x);
  const y = Float64Array.from(layout.y);
  const size = Float64Array.from(node, (v) => radius[v]);
  let covered = 0;
  for (const r of size) covered += Math.PI * (r + NODE_GAP) ** 2;
  centre(x, y);
  const box = span(x, y);
  const room = covered / COVER;
  const area = Math.max(box.width * box.height, 1e-9);
  let scale = Math.sqrt(room / area);
  if (main) {
    scale = Math.max(scale, Math.min(REFERENCE.width / box.width, REFERENCE.height / box.height));
    // A long, thin part lies across the picture rather than down it.
    if (box.height > box.width * 1.2) turn(x, y);
  } else {
    scale = Math.min(scale, (node.length * 26) / Math.max(box.width, box.height, 1e-9));
  }
  for (let i = 0; i < x.length; i++) {
    x[i] *= scale;
    y[i] *= scale;
  }
  const overlaps = final ? makeRoom(x, y, size) : 0;
  centre(x, y);
  let reach = 0;
  for (let i = 0; i < x.length; i++) reach = Math.max(reach, Math.sqrt(x[i] * x[i] + y[i] * y[i]) + size[i]);
  return { x, y, reach, overlaps };
}

/** Removes overlaps; where nodes are too crowded for it, spreads all a little and tries again. */
function makeRoom(x: Float64Array, y: Float64Array, size: Float64Array): number {
  for (let tries = 0; ; tries++) {
    const left = removeOverlaps(x, y, size, NODE_GAP, 60);
    if (left === 0 || tries === 8) return left;
    for (let i = 0; i < x.length; i++) {
      x[i] *= 1.06;
      y[i] *= 1.06;
    }
  }
}

function centre(x: Float64Array, y: Float64Array): void {
  const { left, top, width, height } = span(x, y);
  for (let i = 0; i < x.length; i++) {
    x[i] -= left + width / 2;
    y[i] -= top + height / 2;
  }
}

function turn(x: Float64Array, y: Float64Array): void {
  for (let i = 0; i < x.length; i++) [x[i], y[i]] = [y[i], -x[i]];
}

function span(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
): { left: number; top: number; width: number; height: number } {
  let left = Infinity;
  let right = -Infinity;
  let top = Infinity;
  let bottom = -Infinity;
  for (let i = 0; i < x.length; i++) {
    left = Math.min(left, x[i]);
    right = Math.max(right, x[i]);
    top = Math.min(top, y[i]);
    bottom = Math.max(bottom, y[i]);
  }
  return { left, top, width: right - left, height: bottom - top };
}

/** Sets the isolates in rows under the rest, as wide as the rest, in the order of their numbers. */
function parkBelow(
  isolates: readonly number[],
  x: Float64Array,
  y: Float64Array,
  radius: ArrayLike<number>,
  rest: readonly number[],
): void {
  if (isolates.length === 0) return;
  let largest = 0;
  for (const v of isolates) largest = Math.max(largest, radius[v]);
  const pitch = 2 * largest + NODE_GAP + 2;
  const box = rest.length
    ? span(
        rest.map((v) => x[v]),
        rest.map((v) => y[v]),
      )
    : { left: 0, top: 0, width: pitch * Math.sqrt(isolates.length * 2), height: 0 };
  const columns = Math.max(1, Math.min(isolates.length, Math.floor(box.width / pitch) + 1));
  const left = box.left + box.width / 2 - ((columns - 1) * pitch) / 2;
  const top = rest.length ? box.top + box.height + 44 : 0;
  isolates.forEach((v, i) => {
    x[v] = left + (i % columns) * pitch;
    y[v] = top + Math.floor(i / columns) * pitch;
  });
}
