import { pitchOf, valuesOf, type Placement } from '../common/placed';

/** Wider than high, as a page is. */
const STRETCH = 1.5;

/** Nodes in rows by falling value of a column, nodes without a value last. */
export const grid: Placement = (input, x, y) => {
  const value = valuesOf(input);
  const key = (v: number): number => (Number.isNaN(value[v]) ? -Infinity : value[v]);
  const order = [...input.nodes].sort((a, b) => key(b) - key(a) || a - b);
  const pitch = pitchOf(input, 14);
  const columns = Math.max(1, Math.ceil(Math.sqrt(order.length * STRETCH)));
  order.forEach((v, i) => {
    x[v] = (i % columns) * pitch;
    y[v] = Math.floor(i / columns) * pitch;
  });
};
