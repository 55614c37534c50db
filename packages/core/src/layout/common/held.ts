/** Where nodes are held, by node. */
export type HeldPlaces = ReadonlyMap<number, readonly [x: number, y: number]>;

/**
 * Turns, scales and moves an arrangement so that held nodes come nearest to their places (a least-squares fit of similar figures), and then
 * puts them just there. With one held node the arrangement is only moved.
 */
export function keepHeld(
  x: Float32Array,
  y: Float32Array,
  held: HeldPlaces,
): { x: Float32Array; y: Float32Array } {
  if (held.size === 0) return { x, y };
  let [fromX, fromY, toX, toY] = [0, 0, 0, 0];
  for (const [v, [hx, hy]] of held) {
    fromX += x[v] / held.size;
    fromY += y[v] / held.size;
    toX += hx / held.size;
    toY += hy / held.size;
  }
  let [same, across, all] = [0, 0, 0];
  for (const [v, [hx, hy]] of held) {
    const [px, py, qx, qy] = [x[v] - fromX, y[v] - fromY, hx - toX, hy - toY];
    same += px * qx + py * qy;
    across += px * qy - py * qx;
    all += px * px + py * py;
  }
  const isFit = held.size > 1 && all > 1e-9 && same * same + across * across > 1e-9;
  const [cosine, sine] = isFit ? [same / all, across / all] : [1, 0];
  const placed = { x: new Float32Array(x.length), y: new Float32Array(y.length) };
  for (let v = 0; v < x.length; v++) {
    const [px, py] = [x[v] - fromX, y[v] - fromY];
    placed.x[v] = toX + cosine * px - sine * py;
    placed.y[v] = toY + sine * px + cosine * py;
  }
  for (const [v, [hx, hy]] of held) {
    placed.x[v] = hx;
    placed.y[v] = hy;
  }
  return placed;
}
