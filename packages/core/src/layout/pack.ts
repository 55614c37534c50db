/** A disc to be packed: its radius and, after packing, its middle. */
export interface Disc {
  radius: number;
  x: number;
  y: number;
}

/**
 * Packs discs round the first, each as near to the middle as it fits without touching another: a front of placed discs is
 * searched for the best place beside each pair (front-chain packing, Wang et al. 2006, CHI). Pairs come from
 * the nearest placed discs, which keeps the work small. Changes x and y of the discs.
 */
export function packDiscs(discs: Disc[], gap: number, stretch = 1.45): void {
  discs.forEach((disc, i) => {
    if (i === 0) {
      disc.x = 0;
      disc.y = 0;
      return;
    }
    const placed = discs.slice(0, i);
    let best: { x: number; y: number; cost: number } | null = null;
    for (const place of places(disc, placed, gap)) {
      const cost = (place.x / stretch) ** 2 + place.y ** 2;
      if (best && cost >= best.cost) continue;
      if (placed.every((p) => isFree(p, place, disc.radius, gap))) best = { ...place, cost };
    }
    disc.x = best!.x;
    disc.y = best!.y;
  });
}

function isFree(p: Disc, place: { x: number; y: number }, radius: number, gap: number): boolean {
  const wanted = p.radius + radius + gap;
  return (p.x - place.x) ** 2 + (p.y - place.y) ** 2 >= wanted * wanted * 0.999;
}

/** Places that touch two placed discs, and eight round each. */
function* places(disc: Disc, placed: readonly Disc[], gap: number): Generator<{ x: number; y: number }> {
  const last = placed.slice(-24);
  const candidates = placed.length > 24 ? [placed[0], ...last] : placed;
  for (const p of candidates) {
    const reach = p.radius + disc.radius + gap;
    for (const [dx, dy] of COMPASS) yield { x: p.x + dx * reach, y: p.y + dy * reach };
  }
  for (let i = 0; i < candidates.length; i++) {
    for (let j = 0; j < i; j++) yield* touchingBoth(candidates[i], candidates[j], disc.radius, gap);
  }
}

const ROOT = Math.SQRT1_2;
const COMPASS: readonly (readonly [number, number])[] = [
  [1, 0],
  [ROOT, ROOT],
  [0, 1],
  [-ROOT, ROOT],
  [-1, 0],
  [-ROOT, -ROOT],
  [0, -1],
  [ROOT, -ROOT],
];

function* touchingBoth(
  a: Disc,
  b: Disc,
  radius: number,
  gap: number,
): Generator<{ x: number; y: number }> {
  const ra = a.radius + radius + gap;
  const rb = b.radius + radius + gap;
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const d2 = dx * dx + dy * dy;
  const d = Math.sqrt(d2);
  if (d === 0 || d > ra + rb) return;
  const along = (d2 + ra * ra - rb * rb) / (2 * d);
  const high = ra * ra - along * along;
  if (high < 0) return;
  const h = Math.sqrt(high);
  const mx = a.x + (dx * along) / d;
  const my = a.y + (dy * along) / d;
  yield { x: mx - (dy * h) / d, y: my + (dx * h) / d };
  yield { x: mx + (dy * h) / d, y: my - (dx * h) / d };
}
