import { circleOrder } from '../circle/circle';
import { pitchOf, valuesOf, type Placement } from '../common/placed';
import { roundPoint } from '../common/roundPoint';

/** Rings at most; with more different values, these are put in classes of about the same number of nodes, small ones inside. */
const MOST_RINGS = 6;
/** Share of the nodes that is on the innermost ring, and so on outwards: a core, and ever larger rings. */
const SHARES = [0.02, 0.08, 0.2, 0.4, 0.7, 1];

/** Rings by falling value of a column: the highest in the middle, nodes without a value outermost. Neighbours stand in nearby directions. */
export const rings: Placement = (input, x, y) => {
  const value = valuesOf(input);
  const ring = ringsOf(input.nodes, value);
  const direction = new Map(circleOrder(input).map((v, i) => [v, i]));
  const pitch = pitchOf(input, 6);
  let reach = 0;
  const most = Math.max(-1, ...ring.values());
  for (let r = 0; r <= most; r++) {
    const members = input.nodes
      .filter((v) => ring.get(v) === r)
      .sort((a, b) => direction.get(a)! - direction.get(b)!);
    if (members.length === 0) continue;
    let round = 0;
    for (const v of members) round += 2 * input.radius[v] + 6;
    const isMiddle = r === 0 && members.length === 1;
    reach = isMiddle ? 0 : Math.max(reach + Math.max(pitch * 1.6, 46), round / (2 * Math.PI));
    members.forEach((v, i) => {
      // A ring begins where its first member stands among all.
      const begin = direction.get(members[0])! / Math.max(1, input.nodes.length);
      const point = roundPoint(begin + i / members.length);
      x[v] = point.x * reach;
      y[v] = point.y * reach;
    });
  }
};

/** The ring of each node, 0 in the middle. */
export function ringsOf(nodes: readonly number[], value: ArrayLike<number>): Map<number, number> {
  const given = nodes.filter((v) => !Number.isNaN(value[v]));
  const falling = [...new Set(given.map((v) => value[v]))].sort((a, b) => b - a);
  const ring = new Map<number, number>();
  if (falling.length <= MOST_RINGS) {
    const place = new Map(falling.map((one, r) => [one, r]));
    for (const v of given) ring.set(v, place.get(value[v])!);
  } else {
    const order = [...given].sort((a, b) => value[b] - value[a] || a - b);
    let last = 0;
    order.forEach((v, i) => {
      const own = SHARES.findIndex((share) => (i + 1) / order.length <= share + 1e-9);
      // Equal values stand on one ring.
      last = i > 0 && value[order[i - 1]] === value[v] ? last : Math.max(last, own);
      ring.set(v, last);
    });
  }
  const outside = Math.max(-1, ...ring.values()) + 1;
  for (const v of nodes) if (!ring.has(v)) ring.set(v, outside);
  return ring;
}
