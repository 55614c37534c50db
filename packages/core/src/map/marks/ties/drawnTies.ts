/** So many ties at most are drawn; more would be a grey ground, and would take long. */
export const MOST_DRAWN = 200_000;

/**
 * The ties that are drawn: all that are shown, or the strongest of them where there are too many. Of the weakest of these, which weigh the
 * same as others that are left out, every second, third and so on is taken: so no part of the network is without ties because it stands
 * last in a table, and the picture is as dense here and there as that of all. Their order stays.
 * @param edges the shown ties, ascending
 * @param weight by edge of the network
 */
export function drawnTies(edges: Uint32Array, weight: ArrayLike<number>, most = MOST_DRAWN): Uint32Array {
  if (edges.length <= most) return edges;
  const falling = Float64Array.from(edges, (e) => -weight[e]).sort();
  const least = -falling[most - 1];
  let above = 0;
  for (const e of edges) if (weight[e] > least) above++;
  const same = edges.reduce((sum, e) => sum + Number(weight[e] === least), 0);
  const share = (most - above) / same;
  let i = 0;
  return edges.filter((e) => {
    if (weight[e] !== least) return weight[e] > least;
    i++;
    return Math.floor(i * share) > Math.floor((i - 1) * share);
  });
}
