import { span } from '../common/finish';
import { valuesOf, type Placement } from '../common/placed';

/** Spans in between, in pixels, are taken as they are: places that were written from a map come back to just where they were. */
const [LEAST, MOST] = [200, 20_000];
const WIDTH = 980;
const GAP = 14;

/**
 * Nodes at places that are given by two columns, to the right and downwards, both in one scale: distances stay true. Nodes without a place
 * stand in a row below.
 */
export const given: Placement = (input, x, y) => {
  const first = valuesOf(input);
  const second = input.data.second ?? first;
  const isPlaced = (v: number): boolean => Number.isFinite(first[v]) && Number.isFinite(second[v]);
  const placed = input.nodes.filter(isPlaced);
  const box = span(
    placed.map((v) => first[v]),
    placed.map((v) => second[v]),
  );
  const longest = Math.max(box.width, box.height);
  const scale = longest >= LEAST && longest <= MOST ? 1 : longest > 0 ? WIDTH / longest : 1;
  for (const v of placed) {
    x[v] = first[v] * scale;
    y[v] = second[v] * scale;
  }
  const left = placed.length > 0 ? box.left * scale : 0;
  const below = placed.length > 0 ? (box.top + box.height) * scale + 44 : 0;
  input.nodes
    .filter((v) => !isPlaced(v))
    .forEach((v, i) => {
      x[v] = left + i * GAP;
      y[v] = below;
    });
};
