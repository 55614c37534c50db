import type { LayoutSettings } from '@pebble/contract';
import { weakComponents, type Components } from '../graph/components';
import type { Graph } from '../graph/graph';
import { continueLayout } from './attraction/continueLayout';
import type { Arrangement } from './common/arrangement';
import { centre, makeRoom, NODE_GAP, parkBelow, span, turn } from './common/finish';
import { packRound } from './common/pack';
import { componentParts } from './common/parts';
import { NO_DATA, type LayoutData, type PlacedInput } from './common/placed';
import type { Places, Running } from './common/running';
import type { AtOnce, InRounds } from './kind';
import { layoutKind } from './kinds';

/** The size of picture that an arrangement aims to fill when its nodes leave enough ground. */
const REFERENCE = { width: 980, height: 660 };
/** A few nodes do not fill it: they have so many pixels each along its longer side. */
const ROOMY = 120;
/** Share of the ground that nodes may cover. */
const COVER = 0.2;
const PART_GAP = 16;

interface PartLayout {
  readonly node: Uint32Array;
  readonly layout: Places;
}

/** About what part of the work the beginning of a large network is. */
const BEGINNING = 0.2;

/**
 * Arranges a whole network: by attraction, distances, springs or few crossings every component by itself, the small ones packed round the
 * largest; in all other ways the whole at once. Isolates stand apart in an orderly band below, if not wanted otherwise. A generator, so that
 * a picture can be shown between the rounds: it yields after every iteration of a large component (0 as long as that has not begun itself, but
 * is arranged from smaller pictures) and returns the final arrangement.
 * Throws a RangeError with a sentence when a part is too large for the method.
 * @param radius of each node in pixels at scale 1; nodes will not overlap at these sizes
 * @param progress is told how far a placement of all nodes is, or the beginning of a large network, 0 to 1; may throw to stop
 */
export function* arranging(
  graph: Graph,
  radius: ArrayLike<number>,
  settings: LayoutSettings,
  data: LayoutData = NO_DATA,
  progress?: (share: number) => void,
): Generator<{ iteration: number; preview: () => Arrangement }, Arrangement> {
  if (goesOn(settings) && data.now) return yield* continueLayout(graph, radius, settings, data.now);
  const { how } = layoutKind(settings.method);
  if ('place' in how) return place(how, { graph, radius, settings, data, progress });
  const components = weakComponents(graph);
  const picture = { graph, components, radius, settings };
  const [largest, ...others] = componentParts(graph, components);
  if (!largest) return { ...assemble({ ...picture, parts: [] }, 0, true), cameToRest: true };
  // Small parts first: they are done at once and can then be shown beside the growing large one.
  const rest = restingOnce(how, settings);
  const small = others.map((part) => ({ node: part.node, layout: rest(part.graph) }));
  let cameToRest = small.every(({ layout }) => layout.atRest);
  const beginning = how.begin(largest.graph, settings);
  let begun = beginning.next();
  for (; !begun.done; begun = beginning.next()) {
    const { share, places } = begun.value;
    progress?.(share * BEGINNING);
    const parts = (): PartLayout[] => [{ node: largest.node, layout: places() }, ...small];
    yield { iteration: 0, preview: () => assemble({ ...picture, parts: parts() }, 0, false) };
  }
  const layout = begun.value;
  const parts = [{ node: largest.node, layout }, ...small];
  while (!layout.atRest && layout.iterations < settings.iterations) {
    layout.iterate();
    yield {
      iteration: layout.iterations,
      preview: () => assemble({ ...picture, parts }, 0, false),
    };
  }
  if (!layout.atRest) cameToRest = false;
  return { ...assemble({ ...picture, parts }, layout.iterations, true), cameToRest };
}

/** Whether an arrangement goes on from where the nodes are. */
export function goesOn({ begin, method }: LayoutSettings): boolean {
  return begin === 'as it is' && method === 'attraction';
}

/** Arranges without pauses; see `arranging`. */
export function arrange(
  graph: Graph,
  radius: ArrayLike<number>,
  settings: LayoutSettings,
  progress?: (share: number) => void,
  data: LayoutData = NO_DATA,
): Arrangement {
  let begun = 0;
  const rounds = arranging(graph, radius, settings, data, (share) => progress?.((begun = share)));
  for (;;) {
    const round = rounds.next();
    if (round.done) return round.value;
    progress?.(begun + ((1 - begun) * round.value.iteration) / settings.iterations);
  }
}

/** Places all nodes at once. */
function place(how: AtOnce, given: Omit<PlacedInput, 'nodes'>): Arrangement {
  const { graph, radius, settings } = given;
  const { of, size } = weakComponents(graph);
  const isApart = (v: number): boolean => settings.isolates === 'below' && size[of[v]] === 1;
  const nodes: number[] = [];
  const apart: number[] = [];
  for (let v = 0; v < graph.nodeCount; v++) (!how.takesIsolates && isApart(v) ? apart : nodes).push(v);
  const x = new Float64Array(graph.nodeCount);
  const y = new Float64Array(graph.nodeCount);
  how.place({ ...given, nodes }, x, y);
  let overlaps = 0;
  if (settings.separate && !how.isExact) {
    const [px, py] = [Float64Array.from(nodes, (v) => x[v]), Float64Array.from(nodes, (v) => y[v])];
    overlaps = makeRoom(
      px,
      py,
      Float64Array.from(nodes, (v) => radius[v]),
    );
    if (!how.isRound) centre(px, py);
    nodes.forEach((v, i) => {
      x[v] = px[i];
      y[v] = py[i];
    });
  }
  parkBelow(apart, x, y, radius, nodes);
  return { x: Float32Array.from(x), y: Float32Array.from(y), iterations: 1, cameToRest: true, overlaps };
}

/** Nodes of a part that is likely to come again: most small parts are pairs. */
const OFTEN = 4;

/** Arranges parts that are not shown before they are done; of those that are alike the first. */
function restingOnce(how: InRounds, settings: LayoutSettings): (graph: Graph) => Running {
  const known = new Map<string, Running>();
  return (graph) => {
    if (graph.nodeCount > OFTEN) return runToRest(how, graph, settings);
    const key = [graph.nodeCount, ...graph.source, ...graph.target, ...graph.weight].join(' ');
    let layout = known.get(key);
    if (!layout) known.set(key, (layout = runToRest(how, graph, settings)));
    return layout;
  };
}

function runToRest({ begin }: InRounds, graph: Graph, settings: LayoutSettings): Running {
  const beginning = begin(graph, settings);
  let begun = beginning.next();
  while (!begun.done) begun = beginning.next();
  const layout = begun.value;
  while (!layout.atRest && layout.iterations < settings.iterations) layout.iterate();
  return layout;
}

interface Picture {
  readonly graph: Graph;
  readonly parts: readonly PartLayout[];
  readonly components: Components;
  readonly radius: ArrayLike<number>;
  readonly settings: LayoutSettings;
}

function assemble(
  { graph, parts, components, radius, settings }: Picture,
  iterations: number,
  final: boolean,
): Arrangement {
  const x = new Float64Array(graph.nodeCount);
  const y = new Float64Array(graph.nodeCount);
  let overlaps = 0;
  const placed = parts.map((part, i) => {
    const sized = sizePart(part, radius, i === 0, final, settings);
    overlaps += sized.overlaps;
    return sized;
  });
  const [main, ...small] = placed;
  const isolates: number[] = [];
  for (let v = 0; v < graph.nodeCount; v++) if (components.size[components.of[v]] === 1) isolates.push(v);
  const among = settings.isolates === 'among' ? isolates : [];
  const taken = main
    ? Array.from(parts[0].node, (v, j) => ({ x: main.x[j], y: main.y[j], radius: radius[v] + PART_GAP }))
    : [];
  const spots = packRound(
    taken,
    [...small.map((part) => part.reach), ...among.map((v) => radius[v])],
    PART_GAP / 2,
  );
  parts.forEach((part, i) => {
    const spot = i === 0 ? { x: 0, y: 0 } : spots[i - 1];
    part.node.forEach((v, j) => {
      x[v] = placed[i].x[j] + spot.x;
      y[v] = placed[i].y[j] + spot.y;
    });
  });
  among.forEach((v, i) => {
    x[v] = spots[small.length + i].x;
    y[v] = spots[small.length + i].y;
  });
  const rest = parts.flatMap((part) => [...part.node]);
  if (among.length === 0) parkBelow(isolates, x, y, radius, rest);
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
  settings: LayoutSettings,
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
    const most = (node.length * ROOMY) / Math.max(box.width, box.height, 1e-9);
    scale = Math.max(scale, Math.min(REFERENCE.width / box.width, REFERENCE.height / box.height, most));
    // A long, thin part lies across the picture rather than down it.
    if (settings.turn && box.height > box.width * 1.2) turn(x, y);
  } else {
    scale = Math.min(scale, (node.length * 26) / Math.max(box.width, box.height, 1e-9));
  }
  for (let i = 0; i < x.length; i++) {
    x[i] *= scale;
    y[i] *= scale;
  }
  const overlaps = final && settings.separate ? makeRoom(x, y, size) : 0;
  centre(x, y);
  let reach = 0;
  for (let i = 0; i < x.length; i++) reach = Math.max(reach, Math.sqrt(x[i] * x[i] + y[i] * y[i]) + size[i]);
  return { x, y, reach, overlaps };
}
