/** The leading eigenvector of a symmetric matrix without negative entries. */
interface Leading {
  /** Of length 1, none below 0; all NaN where the matrix is zero. */
  readonly vector: Float64Array;
  /** How often the matrix was applied. */
  readonly iterations: number;
  /** False when it was ended before it came to rest. */
  readonly converged: boolean;
}

/** Vectors that are looked at together. */
const BASIS = 16;
const MOST_ROUNDS = 120;
/** It rests when the matrix moves the vector by less than this share of what it stretches it. */
const REST = 1e-11;

/**
 * The leading eigenvector, found from what the matrix makes of one vector again and again (Lanczos 1950, J. Res. Nat. Bur. Standards 45;
 * begun anew from the best vector every few rounds, all vectors kept at right angles). Other than by repeated multiplication alone it comes
 * to rest where two sides answer each other, as in two-mode networks, and where the second value is near to the first. The scale of the
 * matrix has no part in it. Where several vectors lead, it is what they have of a vector of ones.
 * @param times writes the matrix times its first argument into its second
 */
export function leadingVector(n: number, times: (vector: Float64Array, into: Float64Array) => void): Leading {
  let vector = new Float64Array(n).fill(n > 0 ? 1 / Math.sqrt(n) : 0);
  let iterations = 0;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const basis = [vector];
    const diagonal: number[] = [];
    const beside: number[] = [];
    while (basis.length <= BASIS) {
      const last = basis[basis.length - 1];
      const next = new Float64Array(n);
      times(last, next);
      iterations++;
      diagonal.push(dot(last, next));
      // Twice, so that rounding leaves nothing.
      for (let again = 0; again < 2; again++) for (const one of basis) subtract(next, one, dot(one, next));
      const length = Math.sqrt(dot(next, next));
      const scale = Math.max(...diagonal.map(Math.abs), ...beside);
      if (basis.length === BASIS || !(length > 1e-14 * scale)) {
        beside.push(length);
        break;
      }
      beside.push(length);
      for (let v = 0; v < n; v++) next[v] /= length;
      basis.push(next);
    }
    const { value, parts } = leadingOfSmall(diagonal, beside);
    if (!(value > 0)) return { vector: new Float64Array(n).fill(NaN), iterations, converged: true };
    const better = new Float64Array(n);
    basis.forEach((one, k) => subtract(better, one, -parts[k]));
    const length = Math.sqrt(dot(better, better));
    // Nothing leads with a sign of its own: what is below 0 is rounding.
    for (let v = 0; v < n; v++) better[v] = Math.max(0, better[v] / length);
    vector = better;
    const left = beside[diagonal.length - 1] * Math.abs(parts[diagonal.length - 1]);
    if (left <= REST * value) return { vector, iterations, converged: true };
  }
  return { vector, iterations, converged: n === 0 };
}

/** The largest eigenvalue of a small symmetric matrix with three diagonals, and its vector (Jacobi's rotations). */
function leadingOfSmall(
  diagonal: readonly number[],
  beside: readonly number[],
): { value: number; parts: number[] } {
  const m = diagonal.length;
  const a = diagonal.map((value, i) => {
    const row = new Array<number>(m).fill(0);
    row[i] = value;
    if (i > 0) row[i - 1] = beside[i - 1];
    if (i < m - 1) row[i + 1] = beside[i];
    return row;
  });
  const vectors = diagonal.map((_, i) => diagonal.map((__, j) => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    let all = 0;
    for (let i = 0; i < m; i++)
      for (let j = 0; j < m; j++) {
        all += a[i][j] * a[i][j];
        if (i !== j) off += a[i][j] * a[i][j];
      }
    if (off <= 1e-32 * all) break;
    for (let p = 0; p < m; p++) for (let q = p + 1; q < m; q++) rotate(a, vectors, p, q);
  }
  let best = 0;
  for (let i = 1; i < m; i++) if (a[i][i] > a[best][best]) best = i;
  const sign = vectors[0][best] < 0 ? -1 : 1;
  return { value: a[best][best], parts: vectors.map((row) => sign * row[best]) };
}

/** Turns the rows and columns p and q so that nothing stands where they cross. */
function rotate(a: number[][], vectors: number[][], p: number, q: number): void {
  if (a[p][q] === 0) return;
  const slope = (a[q][q] - a[p][p]) / (2 * a[p][q]);
  const t = (slope < 0 ? -1 : 1) / (Math.abs(slope) + Math.sqrt(slope * slope + 1));
  const c = 1 / Math.sqrt(t * t + 1);
  const s = t * c;
  for (const row of a) {
    const [kp, kq] = [row[p], row[q]];
    row[p] = c * kp - s * kq;
    row[q] = s * kp + c * kq;
  }
  for (let k = 0; k < a.length; k++) {
    const [pk, qk] = [a[p][k], a[q][k]];
    a[p][k] = c * pk - s * qk;
    a[q][k] = s * pk + c * qk;
    const [vp, vq] = [vectors[k][p], vectors[k][q]];
    vectors[k][p] = c * vp - s * vq;
    vectors[k][q] = s * vp + c * vq;
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let v = 0; v < a.length; v++) sum += a[v] * b[v];
  return sum;
}

function subtract(from: Float64Array, vector: Float64Array, times: number): void {
  for (let v = 0; v < from.length; v++) from[v] -= times * vector[v];
}
