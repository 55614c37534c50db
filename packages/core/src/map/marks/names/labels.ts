import { DiscGrid, type Discs } from '../../scene/discGrid';
import type { TextBox } from '../notes/calloutLine';
import { TakenBoxes } from '../../scene/takenBoxes';
import { textWidth, type Face } from '../../style/textWidth';

/** A name that wants a place beside its node. */
export interface NameWish {
  readonly node: number;
  /** Its lines. */
  readonly text: readonly string[];
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly size: number;
  readonly face: Face;
  /** Placed even where it covers another name. */
  readonly always: boolean;
  /** Where a hand put its middle; null where a place is to be found. */
  readonly put: { readonly x: number; readonly y: number } | null;
}

export interface PlacedName extends NameWish {
  /** Where it begins, the base of its first line, and how wide its widest line is. */
  readonly left: number;
  readonly base: number;
  readonly width: number;
  readonly box: TextBox;
}

/** What each further place beside a node costs, beside a covered node. */
const RANK_COST = 1.5;
/** Distance of two lines of a name, by the height of its letters. */
export const LINE_HEIGHT = 1.12;

/**
 * Finds a place for each name in the order given: below, above, right or left of its node, where it covers no name that
 * was placed before, and as little of other nodes as can be. A name without a free place is left out.
 * @param discs the nodes that names should not cover, by node
 * @param reserved boxes that no name may cover
 */
export function placeNames(
  wishes: readonly NameWish[],
  discs: Discs,
  bounds: { width: number; height: number },
  reserved: readonly TextBox[] = [],
): PlacedName[] {
  const grid = new DiscGrid(discs, bounds);
  const placed: PlacedName[] = [];
  const taken = new TakenBoxes(bounds.height);
  for (const box of reserved) taken.add(box);
  for (const wish of wishes) {
    const width = Math.max(...wish.text.map((line) => textWidth(line, wish.size, wish.face)));
    const below = (wish.text.length - 1) * LINE_HEIGHT * wish.size;
    const boxAt = (spot: Spot): TextBox => ({
      left: spot.left - 2,
      right: spot.left + width + 2,
      top: spot.base - wish.size * 0.82,
      bottom: spot.base + below + wish.size * 0.26,
    });
    if (wish.put) {
      const spot = { left: wish.put.x - width / 2, base: wish.put.y + wish.size * 0.28 - below / 2 };
      const box = boxAt(spot);
      taken.add(box);
      placed.push({ ...wish, ...spot, width, box });
      continue;
    }
    let best: (Spot & { box: TextBox; cost: number }) | null = null;
    for (const [rank, spot] of spots(wish, width, below).entries()) {
      // A later place costs so much at least.
      if (best && best.cost <= rank * RANK_COST) break;
      const box = boxAt(spot);
      const inside =
        box.left >= 0 && box.right <= bounds.width && box.top >= 0 && box.bottom <= bounds.height;
      if (!wish.always && !inside) continue;
      const clash = taken.touch(box);
      if (!wish.always && clash) continue;
      const cost =
        coveredNodes(box, grid, discs, wish.node) +
        rank * RANK_COST +
        (clash ? 1000 : 0) +
        (inside ? 0 : 500);
      if (!best || cost < best.cost) best = { box, ...spot, cost };
    }
    if (!best) continue;
    taken.add(best.box);
    placed.push({ ...wish, left: best.left, base: best.base, width, box: best.box });
  }
  return placed;
}

/** Where a name begins, and the base of its first line. */
interface Spot {
  readonly left: number;
  readonly base: number;
}

/** @param below height of the lines under the first */
function spots({ x, y, radius, size }: NameWish, width: number, below: number): Spot[] {
  const middle = y + size * 0.3 - below / 2;
  return [
    { left: x - width / 2, base: y + radius + size * 0.95 },
    { left: x - width / 2, base: y - radius - size * 0.35 - below },
    { left: x + radius + 4, base: middle },
    { left: x - radius - 4 - width, base: middle },
    { left: x + radius * 0.75 + 3, base: y - radius * 0.75 - below },
    { left: x + radius * 0.75 + 3, base: y + radius * 0.75 + size * 0.7 },
    { left: x - radius * 0.75 - 3 - width, base: y - radius * 0.75 - below },
    { left: x - radius * 0.75 - 3 - width, base: y + radius * 0.75 + size * 0.7 },
  ];
}

/** Some measure of how much of other nodes a box would cover: large nodes count most. */
function coveredNodes(
  { left, top, right, bottom }: TextBox,
  grid: DiscGrid,
  { radius }: Discs,
  own: number,
): number {
  let cost = 0;
  grid.forEachIn(left, top, right, bottom, (v) => {
    if (v !== own) cost += 1 + radius[v];
  });
  return cost;
}
