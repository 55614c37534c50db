import Flatbush from 'flatbush';
import { numbersOf } from '../../network/tables';
import type { ScreenNodes } from '../scene/screenNodes';
import type { PreparedMap } from '../scene/prepare';
import { routesOf, wayOfTie, type Route } from '../marks/ties/tieRoutes';

/** Pieces in which a tie is looked at. */
const STEPS = 24;

/** Finds what stands at a point of the screen: a node first, then a tie. Built anew when the view has come to rest. */
export class Picker {
  private readonly nodeIndex: Flatbush | null;
  private readonly edgeIndex: Flatbush | null;
  private readonly route: Route;
  private readonly way = wayOfTie();

  constructor(
    private readonly map: PreparedMap,
    private readonly nodes: ScreenNodes,
  ) {
    this.nodeIndex = build(map.nodes.length, (i) => {
      const v = map.nodes[i];
      const r = nodes.radius[v];
      return [nodes.x[v] - r, nodes.y[v] - r, nodes.x[v] + r, nodes.y[v] + r];
    });
    this.route = routesOf(map, nodes);
    const source = numbersOf(map.network.edges, 'source');
    const target = numbersOf(map.network.edges, 'target');
    this.edgeIndex = build(map.drawn.length, (i) => {
      const a = source[map.drawn[i]];
      const b = target[map.drawn[i]];
      const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
      const take = (x: number, y: number): void => {
        box.left = Math.min(box.left, x);
        box.right = Math.max(box.right, x);
        box.top = Math.min(box.top, y);
        box.bottom = Math.max(box.bottom, y);
      };
      take(nodes.x[a], nodes.y[a]);
      take(nodes.x[b], nodes.y[b]);
      const parts = this.route(map.drawn[i], a, b, this.way);
      for (let p = 0; p < 2 * parts; p++) take(this.way[2 * p], this.way[2 * p + 1]);
      return [box.left, box.top, box.right, box.bottom];
    });
  }

  /** The node whose disc is at the point or at most `reach` pixels from it; the nearest to its middle. */
  nodeAt(x: number, y: number, reach = 3): number | null {
    let best: number | null = null;
    let nearest = Infinity;
    for (const i of this.nodeIndex?.search(x - reach, y - reach, x + reach, y + reach) ?? []) {
      const v = this.map.nodes[i];
      const d = Math.hypot(this.nodes.x[v] - x, this.nodes.y[v] - y);
      if (d <= this.nodes.radius[v] + reach && d < nearest) {
        nearest = d;
        best = v;
      }
    }
    return best;
  }

  /** The edge whose curve passes at most `reach` pixels from the point; the nearest. */
  edgeAt(x: number, y: number, reach = 4): number | null {
    const source = numbersOf(this.map.network.edges, 'source');
    const target = numbersOf(this.map.network.edges, 'target');
    let best: number | null = null;
    let nearest = reach;
    for (const i of this.edgeIndex?.search(x - reach, y - reach, x + reach, y + reach) ?? []) {
      const e = this.map.drawn[i];
      const d = this.distanceToCurve(x, y, e, source[e], target[e]);
      if (d < nearest) {
        nearest = d;
        best = e;
      }
    }
    return best;
  }

  private distanceToCurve(x: number, y: number, e: number, a: number, b: number): number {
    if (a === b) return Infinity;
    const { x: xs, y: ys } = this.nodes;
    const parts = this.route(e, a, b, this.way);
    if (parts === 0) return distanceToSegment(x, y, xs[a], ys[a], xs[b], ys[b]);
    const steps = Math.max(4, Math.ceil(STEPS / parts));
    let nearest = Infinity;
    let px = xs[a];
    let py = ys[a];
    for (let p = 0; p < parts; p++) {
      const [cx, cy, ex, ey] = this.way.subarray(4 * p, 4 * p + 4);
      const [sx, sy] = [px, py];
      for (let i = 1; i <= steps; i++) {
        const t = i / steps;
        const u = 1 - t;
        const qx = u * u * sx + 2 * u * t * cx + t * t * ex;
        const qy = u * u * sy + 2 * u * t * cy + t * t * ey;
        nearest = Math.min(nearest, distanceToSegment(x, y, px, py, qx, qy));
        px = qx;
        py = qy;
      }
    }
    return nearest;
  }
}

function build(count: number, box: (i: number) => [number, number, number, number]): Flatbush | null {
  if (count === 0) return null;
  const index = new Flatbush(count);
  for (let i = 0; i < count; i++) index.add(...box(i));
  index.finish();
  return index;
}

function distanceToSegment(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}
