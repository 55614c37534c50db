/**
 * Moves discs apart until none overlap or the rounds are used up, each pair by as little as it needs, as in the scan of
 * near neighbours by a grid (Gansner & Hu 2010, J. Graph Algorithms Appl. 14, for the aim: keep the shape, lose the overlap).
 * @returns pairs that still overlap after the last round
 */
export function removeOverlaps(
  x: Float64Array,
  y: Float64Array,
  radius: ArrayLike<number>,
  gap: number,
  rounds = 120,
): number {
  let left = 0;
  for (let round = 0; round < rounds; round++) {
    left = separate(x, y, radius, gap);
    if (left === 0) return 0;
  }
  return left;
}

function separate(x: Float64Array, y: Float64Array, radius: ArrayLike<number>, gap: number): number {
  const n = x.length;
  let widest = 0;
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  for (let v = 0; v < n; v++) {
    widest = Math.max(widest, radius[v]);
    left = Math.min(left, x[v]);
    top = Math.min(top, y[v]);
    right = Math.max(right, x[v]);
  }
  const cell = 2 * widest + gap;
  if (!(cell > 0)) return 0;
  const columns = Math.floor((right - left) / cell) + 1;
  const rows = new Map<number, number[]>();
  for (let v = 0; v < n; v++) {
    const key = Math.floor((y[v] - top) / cell) * (columns + 2) + Math.floor((x[v] - left) / cell);
    const row = rows.get(key);
    if (row) row.push(v);
    else rows.set(key, [v]);
  }
  const beside = [0, 1, columns + 1, columns + 2, columns + 3];
  let overlapping = 0;
  for (const [key, members] of rows) {
    for (const step of beside) {
      const others = step === 0 ? members : rows.get(key + step);
      if (!others) continue;
      for (let i = 0; i < members.length; i++) {
        for (let j = step === 0 ? i + 1 : 0; j < others.length; j++) {
          overlapping += partPair(members[i], others[j], x, y, radius, gap);
        }
      }
    }
  }
  return overlapping;
}

function partPair(
  a: number,
  b: number,
  x: Float64Array,
  y: Float64Array,
  radius: ArrayLike<number>,
  gap: number,
): number {
  const wanted = radius[a] + radius[b] + gap;
  let dx = x[b] - x[a];
  let dy = y[b] - y[a];
  const d2 = dx * dx + dy * dy;
  if (d2 >= wanted * wanted * 0.9998) return 0;
  let distance = Math.sqrt(d2);
  if (distance < 1e-6) {
    // Two nodes in one place part along a line that depends on their numbers alone.
    dx = (a % 7) - 3 || 1;
    dy = (b % 5) - 2 || 1;
    distance = Math.sqrt(dx * dx + dy * dy);
    dx *= 1e-6 / distance;
    dy *= 1e-6 / distance;
    distance = 1e-6;
  }
  const move = (wanted - distance) / distance;
  // The larger disc moves less.
  const share = (radius[b] * radius[b] + 1) / (radius[a] * radius[a] + radius[b] * radius[b] + 2);
  x[a] -= dx * move * share;
  y[a] -= dy * move * share;
  x[b] += dx * move * (1 - share);
  y[b] += dy * move * (1 - share);
  return 1;
}
