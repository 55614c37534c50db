/** Ties for each node from which on a picture of all of them is a ball of hair, and how many it is thinned to. */
const DENSE = 10;
const READABLE = 4;

/**
 * The least weight by which a dense network is shown at first, so that its strongest ties can be seen: 0, which is all, for one that is not
 * dense, or whose weights do not tell strong ties from weak ones.
 * @param weight of each tie
 */
export function readableLeast(weight: ArrayLike<number>, nodes: number): number {
  const ties = weight.length;
  if (ties <= DENSE * nodes) return 0;
  const falling = Float64Array.from(weight).sort().reverse();
  const most = READABLE * nodes;
  // Ties as strong as the first one that would be too many are left out with it.
  const least = falling.findLast((one, i) => i < most && one > falling[most]);
  if (least === undefined) return 0;
  const shown = falling.findLastIndex((one) => one >= least) + 1;
  return shown >= nodes / 2 ? shortest(falling[most], least) : 0;
}

/** The number with the fewest digits that is above one bound and not above the other. */
function shortest(above: number, until: number): number {
  for (let digits = 1; digits < 17; digits++) {
    const short = Number(until.toPrecision(digits));
    if (short > above && short <= until) return short;
  }
  return until;
}
