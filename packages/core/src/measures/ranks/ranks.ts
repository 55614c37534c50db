/**
 * Rank of each value, the highest first: 1 and one more for each higher value, so that equal ones share the best of their ranks. NaN where
 * there is no value.
 */
export function ranks(values: ArrayLike<number>): Float64Array {
  const order = given(values);
  const rank = new Float64Array(values.length).fill(NaN);
  order.forEach((v, i) => {
    rank[v] = i > 0 && values[order[i - 1]] === values[v] ? rank[order[i - 1]] : i + 1;
  });
  return rank;
}

/** Of each value the share of the others that are lower, equal ones counting half: 0 to 100. NaN where there is no value. */
export function percentiles(values: ArrayLike<number>): Float64Array {
  const order = given(values);
  const share = new Float64Array(values.length).fill(NaN);
  const mean = meanRanks(order.map((v) => values[v]));
  const others = order.length - 1;
  order.forEach((v, i) => (share[v] = others > 0 ? (100 * (order.length - mean[i])) / others : 100));
  return share;
}

/**
 * Spearman's rank correlation over what has a value in both, equal values having their mean rank: 1 where both put them in the same order,
 * -1 in the opposite one; NaN where one of them puts none before another.
 */
export function rankCorrelation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const both = Array.from({ length: a.length }, (_, v) => v).filter(
    (v) => !Number.isNaN(a[v]) && !Number.isNaN(b[v]),
  );
  const x = meanRanks(both.map((v) => a[v]));
  const y = meanRanks(both.map((v) => b[v]));
  const middle = (both.length + 1) / 2;
  let [xy, xx, yy] = [0, 0, 0];
  x.forEach((rank, i) => {
    xy += (rank - middle) * (y[i] - middle);
    xx += (rank - middle) ** 2;
    yy += (y[i] - middle) ** 2;
  });
  return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : NaN;
}

function meanRanks(values: readonly number[]): Float64Array {
  const order = given(values);
  const rank = new Float64Array(values.length);
  for (let i = 0; i < order.length;) {
    let end = i;
    while (end < order.length && values[order[end]] === values[order[i]]) end++;
    for (let k = i; k < end; k++) rank[order[k]] = (i + 1 + end) / 2;
    i = end;
  }
  return rank;
}

/** Places that have a value, by falling value; of equal ones the first. */
function given(values: ArrayLike<number>): number[] {
  return Array.from({ length: values.length }, (_, v) => v)
    .filter((v) => !Number.isNaN(values[v]))
    .sort((a, b) => values[b] - values[a] || a - b);
}
