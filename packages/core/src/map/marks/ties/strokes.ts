import type { Stroke } from '@pebble/contract';
import { nodesWithin } from '../../interaction/choosing';
import { contoursAround } from '../regions/contour';
import type { ScreenNodes } from '../../scene/screenNodes';

/** Points of a drawn line that are kept are at least so far apart, in pixels. */
const APART = 6;
const MOST_POINTS = 400;

/**
 * A line that a hand drew, kept by the nodes near which it runs: each of its points moves with the nearest of these.
 * @param line x, y on the screen
 * @param shown nodes to which it may be bound; there must be one
 * @param width on the screen
 */
export function strokeOf(
  line: readonly (readonly [number, number])[],
  { x, y }: Pick<ScreenNodes, 'x' | 'y'>,
  shown: Uint32Array,
  width: number,
  scale: number,
): Stroke {
  const kept: (readonly [number, number])[] = [];
  for (const point of line) {
    const last = kept.at(-1);
    if (!last || Math.hypot(point[0] - last[0], point[1] - last[1]) >= APART) kept.push(point);
  }
  const step = Math.ceil(kept.length / MOST_POINTS);
  const points = kept
    .filter((_, i) => i % step === 0)
    .map(([px, py]) => {
      let [near, best] = [shown[0], Infinity];
      for (const v of shown) {
        const away = (x[v] - px) ** 2 + (y[v] - py) ** 2;
        if (away < best) [near, best] = [v, away];
      }
      return { near, dx: (px - x[near]) / scale, dy: (py - y[near]) / scale };
    });
  return { title: '', width: width / scale, points };
}

/**
 * The nodes on a drawn line and, where it runs round some, within it.
 * @param places in units of the map
 * @param shown nodes that can be meant
 */
export function nodesOfStroke(stroke: Stroke, places: ScreenNodes, shown: Uint32Array): number[] {
  const inside = linesRoundStroke(stroke, places, 1).flatMap((ring) =>
    nodesWithin(pointsOf(ring), places, shown),
  );
  return [...new Set(inside)].sort((a, b) => a - b);
}

function pointsOf(ring: Float32Array): (readonly [number, number])[] {
  return Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i], ring[2 * i + 1]] as const);
}

/** The outline of a drawn line on the screen: soft, as wide as it was drawn. Points near nodes that are not shown are left out. */
export function linesRoundStroke(
  stroke: Stroke,
  { x, y, radius }: ScreenNodes,
  scale: number,
): Float32Array[] {
  const path = stroke.points
    .filter(({ near }) => radius[near] > 0)
    .map(({ near, dx, dy }) => [x[near] + dx * scale, y[near] + dy * scale] as const);
  if (path.length === 0) return [];
  // Hills of this width, so near each other, are half of the stroke high at its rim.
  const reach = Math.max(2, (stroke.width * scale) / 4);
  const along = { x: [path[0][0]], y: [path[0][1]] };
  for (let i = 1; i < path.length; i++) {
    const [[ax, ay], [bx, by]] = [path[i - 1], path[i]];
    const steps = Math.max(1, Math.min(200, Math.round(Math.hypot(bx - ax, by - ay) / reach)));
    for (let s = 1; s <= steps; s++) {
      along.x.push(ax + ((bx - ax) * s) / steps);
      along.y.push(ay + ((by - ay) * s) / steps);
    }
  }
  return contoursAround([...along.x.keys()], along, reach);
}
