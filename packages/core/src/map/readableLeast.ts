/** Ties for each node from which on a picture of all of them is a ball of hair, and how many it is thinned to. */
const DENSE = 10;
const READABLE = 4;

/**
 * The least weight by which a dense network is shown at first, so that its strongest ties can be seen: 1 for one that is not dense, or whose
 * weights do not tell strong ties from weak ones.
 * @param weight of each tie
 */
export function readableLeast(weight: ArrayLike<number>, nodes: number): number {
  const ties = weight.length;
  if (ties <= DENSE * nodes) return 1;
  const falling = Float64Array.from(weight).sort().reverse();
  const most = READABLE * nodes;
  // Ties as strong as the first one that would be too many are left out with it.
  const least = falling.findLast((one, i) => i < most && one > falling[most]);
  const shown = least === undefined ? 0 : falling.findLastIndex((one) => one >= least) + 1;
  return least !== undefined && shown >= nodes / 2 ? least : 1;
}
