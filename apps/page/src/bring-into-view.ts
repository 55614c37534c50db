import { whole } from './held';
import { size, view } from './looking';

/** Near enough to tell a node from its neighbours. */
const NEAR = 0.8;
const EDGE = 60;

/** Moves the map so that a node is on it; one that is there already stays where it is. */
export function bringIntoView(node: number): void {
  const now = view.value;
  if (!now) return;
  const { width, height } = size.value;
  const [x, y] = [whole.x[node], whole.y[node]];
  const [sx, sy] = [x * now.scale + now.x, y * now.scale + now.y];
  const isThere = sx > EDGE && sy > EDGE && sx < width - EDGE && sy < height - EDGE;
  if (isThere && now.scale >= NEAR / 4) return;
  const scale = Math.max(now.scale, NEAR);
  view.value = { scale, x: width / 2 - x * scale, y: height / 2 - y * scale };
}
