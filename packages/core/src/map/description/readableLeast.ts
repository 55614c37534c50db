/** Ties for each node from which on a picture of all of them is a ball of hair, and how many it is thinned to. */
const DENSE = 10;
const READABLE = 4;
/** So much of these is kept at least for a bound that is a round number. */
const WORTH = 0.9;

/**
 * The least weight by which a dense network is shown at first, so that its strongest ties can be seen: 0, which is all, for one that is not
 * dense, or whose weights do not tell strong ties from weak ones.
 * @param weight of each tie
 */
export function readableLeast(weight: ArrayLike<number>, nodes: number): number {
  const ties = weight.length;
  if (ties <= DENSE * nodes) return 0;
  const falling = Float64Array.from(weight).sort().reverse();
  const usual = READABLE * nodes;
  // Of the strongest ties more can weigh the same, though not so many that they are a ball of hair themselves.
  const same = falling.findIndex((one) => one < falling[0]);
  const most = same > usual && same <= DENSE * nodes ? same : usual;
  // Ties as strong as the first one that would be too many are left out with it.
  const least = falling.findLast((one, i) => i < most && one > falling[most]);
  if (least === undefined) return 0;
  const shown = falling.findLastIndex((one) => one >= least) + 1;
  if (shown < nodes / 2) return 0;
  // A round number is worth some ties.
  return roundAbove(falling[most], Math.max(least, falling[Math.floor(WORTH * shown)]));
}

/** Of the numbers above one bound and not above the other one with the fewest digits, the lowest of these. */
function roundAbove(above: number, until: number): number {
  if (!(above > 0)) return until;
  for (let digits = 1; digits < 17; digits++) {
    const unit = 10 ** (Math.floor(Math.log10(above)) + 1 - digits);
    const round = Number(((Math.floor(above / unit) + 1) * unit).toPrecision(digits));
    if (round > above && round <= until) return round;
  }
  return until;
}
