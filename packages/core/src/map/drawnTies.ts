/** So many ties at most are drawn; more would be a grey ground, and would take long. */
export const MOST_DRAWN = 200_000;

/**
 * The ties that are drawn: all that are shown, or the strongest of them where there are too many. Of ties of the same weight the first ones
 * are taken. Their order stays.
 * @param edges the shown ties, ascending
 * @param weight by edge of the network
 */
export function drawnTies(edges: Uint32Array, weight: ArrayLike<number>, most = MOST_DRAWN): Uint32Array {
  if (edges.length <= most) return edges;
  const falling = Float64Array.from(edges, (e) => -weight[e]).sort();
  const least = -falling[most - 1];
  let above = 0;
  for (const e of edges) if (weight[e] > least) above++;
  let room = most - above;
  return edges.filter((e) => weight[e] > least || (weight[e] === least && room-- > 0));
}
