import type { LayoutSettings } from '@pebble/contract';
import type { Graph } from '../../graph/graph';
import type { Arrangement } from '../common/arrangement';
import { Attraction } from './attraction';
import { makeRoom } from '../common/finish';
import { componentParts } from '../common/parts';
import type { Present } from '../common/placed';
import type { Places } from '../common/running';

/** A layout that goes on looks for rest more closely than one that begins. */
const CLOSER = 0.25;

/**
 * Goes on with an arrangement by attraction from where the nodes are, each component about its middle, in the same units and at the same
 * place: nothing is scaled, turned or packed anew. Held nodes do not move, single ones stay. Yields after every round of the largest.
 */
export function* continueLayout(
  graph: Graph,
  radius: ArrayLike<number>,
  settings: LayoutSettings,
  now: Present,
): Generator<{ iteration: number; preview: () => Arrangement }, Arrangement> {
  const parts = componentParts(graph).map((part) => beginPart(part, settings, now));
  const written = (separate: boolean, iterations: number, cameToRest: boolean): Arrangement => {
    const x = Float32Array.from(now.x);
    const y = Float32Array.from(now.y);
    let overlaps = 0;
    for (const { node, layout, scale, middle } of parts) {
      const px = Float64Array.from(layout.x, (at) => at / scale);
      const py = Float64Array.from(layout.y, (at) => at / scale);
      if (separate)
        overlaps += makeRoom(
          px,
          py,
          Float64Array.from(node, (v) => radius[v]),
        );
      node.forEach((v, i) => {
        x[v] = px[i] + middle[0];
        y[v] = py[i] + middle[1];
      });
    }
    for (const v of now.held) {
      x[v] = now.x[v];
      y[v] = now.y[v];
    }
    return { x, y, iterations, cameToRest, overlaps };
  };
  let iterations = 0;
  let cameToRest = true;
  for (const { layout } of [...parts].reverse()) {
    while (!layout.atRest && layout.iterations < settings.iterations) {
      layout.iterate();
      if (layout !== parts[0].layout) continue;
      iterations = layout.iterations;
      yield { iteration: iterations, preview: () => written(false, iterations, false) };
    }
    if (!layout.atRest) cameToRest = false;
  }
  return written(settings.separate, iterations, cameToRest);
}

interface GoingPart {
  readonly node: Uint32Array;
  readonly layout: Attraction;
  /** How much larger the units of the layout are than those of the map. */
  readonly scale: number;
  readonly middle: readonly [number, number];
}

function beginPart(
  { graph, node }: { graph: Graph; node: Uint32Array },
  settings: LayoutSettings,
  now: Present,
): GoingPart {
  let [sumX, sumY] = [0, 0];
  for (const v of node) {
    sumX += now.x[v];
    sumY += now.y[v];
  }
  const middle = [sumX / node.length, sumY / node.length] as const;
  const start: Places = {
    x: Float64Array.from(node, (v) => now.x[v] - middle[0]),
    y: Float64Array.from(node, (v) => now.y[v] - middle[1]),
  };
  const held = new Set(now.held);
  const fixed = Uint8Array.from(node, (v) => (held.has(v) ? 1 : 0));
  const layout = new Attraction(graph, { ...settings, start, fixed, rest: CLOSER });
  return { node, layout, scale: layout.balance(), middle };
}
