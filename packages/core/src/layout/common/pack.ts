/** A disc that has its place. */
export interface Disc {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

const CELL = 8;

/**
 * Finds places for discs round what is there already: each goes to the free place nearest to the middle, tried along
 * growing ellipses that are as much wider than high as a screen is.
 * @param taken what must not be touched
 * @param radii of the discs to place, in the order in which they choose
 * @returns the place of each disc
 */
export function packRound(
  taken: readonly Disc[],
  radii: readonly number[],
  gap: number,
  stretch = 1.45,
): Disc[] {
  const ground = new Ground();
  for (const disc of taken) ground.occupy(disc);
  const placed: Disc[] = [];
  let wholeRing = 0;
  let lastRadius = Infinity;
  for (const radius of radii) {
    // A disc as large as the one before finds nothing free where that one found nothing.
    let ring = radius === lastRadius ? wholeRing : 0;
    let place: Disc | null = null;
    for (; place === null; ring++) place = freeOnRing(ground, ring, radius, gap, stretch);
    wholeRing = ring - 1;
    lastRadius = radius;
    ground.occupy({ ...place, radius: radius + gap });
    placed.push(place);
  }
  return placed;
}

function freeOnRing(ground: Ground, ring: number, radius: number, gap: number, stretch: number): Disc | null {
  if (ring === 0) return ground.isFree(0, 0, radius + gap) ? { x: 0, y: 0, radius } : null;
  const reach = ring * CELL;
  // Points of a square ring, drawn onto the ellipse, so that no sine is needed and every engine gives the same places.
  const steps = Math.max(8, 6 * ring);
  for (let i = 0; i < steps; i++) {
    const along = (8 * i) / steps;
    const [sx, sy] = onSquare(along);
    const length = Math.sqrt(sx * sx + sy * sy);
    const x = (stretch * reach * sx) / length;
    const y = (reach * sy) / length;
    if (ground.isFree(x, y, radius + gap)) return { x, y, radius };
  }
  return null;
}

/** A point on the square with corners (1, 1) and (-1, -1); along runs from 0 to 8. */
function onSquare(along: number): [number, number] {
  if (along < 2) return [1, along - 1];
  if (along < 4) return [3 - along, 1];
  return along < 6 ? [-1, 5 - along] : [along - 7, -1];
}

/** Which cells of the plane are taken. */
class Ground {
  private readonly cells = new Set<number>();

  occupy({ x, y, radius }: Disc): void {
    this.visit(x, y, radius, (cell) => {
      this.cells.add(cell);
      return true;
    });
  }

  isFree(x: number, y: number, radius: number): boolean {
    return this.visit(x, y, radius, (cell) => !this.cells.has(cell));
  }

  /** Visits the cells that a disc touches until a visit says false. */
  private visit(x: number, y: number, radius: number, visit: (cell: number) => boolean): boolean {
    const reach = radius + CELL * 0.71;
    for (let row = Math.floor((y - radius) / CELL); row <= (y + radius) / CELL; row++) {
      for (let column = Math.floor((x - radius) / CELL); column <= (x + radius) / CELL; column++) {
        const dx = (column + 0.5) * CELL - x;
        const dy = (row + 0.5) * CELL - y;
        if (dx * dx + dy * dy > reach * reach) continue;
        if (!visit((row + 100_000) * 200_000 + column + 100_000)) return false;
      }
    }
    return true;
  }
}
