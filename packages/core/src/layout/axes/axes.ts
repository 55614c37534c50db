import { valuesOf, type Placement } from '../common/placed';

const WIDTH = 1100;
const HEIGHT = 720;
/** Values whose highest is so many times their median stand by their root: most would be in a corner otherwise. */
const SKEWED = 20;

/** Nodes by two columns: the first from left to right, the second from below upwards; a node without one of the values at the rim. */
export const axes: Placement = (input, x, y) => {
  const first = valuesOf(input);
  const second = input.data.second ?? first;
  const alongX = scaleOf(input.nodes, first);
  const alongY = scaleOf(input.nodes, second);
  for (const v of input.nodes) {
    x[v] = alongX(first[v]) * WIDTH;
    y[v] = -alongY(second[v]) * HEIGHT;
  }
};

/** From a value to 0 to 1; a missing one stands a little below 0. */
function scaleOf(nodes: readonly number[], value: ArrayLike<number>): (value: number) => number {
  const given = nodes.map((v) => value[v]).filter((one) => !Number.isNaN(one));
  const sorted = Float64Array.from(given).sort();
  if (sorted.length === 0) return () => -0.06;
  const [least, most] = [sorted[0], sorted[sorted.length - 1]];
  const median = sorted[sorted.length >> 1];
  const isSkewed = least >= 0 && most > SKEWED * Math.max(median, 1e-12);
  const span = most - least;
  return (one) => {
    if (Number.isNaN(one)) return -0.06;
    if (!(span > 0)) return 0.5;
    const share = (one - least) / span;
    return isSkewed ? Math.sqrt(share) : share;
  };
}
