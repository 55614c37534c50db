import type { Chords } from './compatibility';
import { matesOf, MOST_MATES, type CompatibleEdges } from './compatibleEdges';

/** Pieces of each line in the rounds of pulling, each time twice as many as before. */
const PIECES = [2, 4, 8, 16];
/** Rounds with so many pieces: at first many, since they cost little and move most. */
const ROUNDS = [70, 36, 18, 10];
/** Points that a line has between its ends when it is bundled. */
export const INNER = PIECES[PIECES.length - 1] - 1;
/** Width of the picture while it is worked on. */
const SPAN = 1000;
/** At this distance a pull is half as strong as its law says, so that lines that lie on each other do not tremble. */
const SOFT = 26;
/** How far a pull of 1 moves a point in a round. */
const STEP = 560;
/** How much a point goes to its neighbours on the line in a round; the shorter the pieces, the less they bend. */
const STIFF = [0.02, 0.05, 0.12, 0.25];
/** A point moves at most so far in a round. */
const FARTHEST = 8;
/** Share of the work that looking for mates is said to be. */
const SHARE_OF_MATES = 0.4;

/** Points of bundled lines: line i has `INNER` of them from `i * INNER` on, from its beginning to its end. */
export interface BundledLines {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly mates: CompatibleEdges;
}

/**
 * Force-directed edge bundling (Holten & van Wijk 2009, Computer Graphics Forum 28): each line is cut into more and more pieces; between
 * rounds of that its points are pulled to the points of lines that are alike, by one part in their distance, and to their neighbours on
 * the line. Unlike there a pull is softened near by, is the mean over a sample of mates, and moves a point as far as it is strong: what
 * has come together lies still. Needs no chance but the sample; takes place in a picture of a fixed width, so that it does not depend on
 * the unit of the places. Tells in between how far it is, 0 to 1.
 */
export function* bundledLines(chords: Chords): Generator<number, BundledLines> {
  const { unit, lines } = inFixedWidth(chords);
  const found = matesOf(lines);
  let mates: CompatibleEdges;
  for (;;) {
    const part = found.next();
    if (part.done) {
      mates = part.value;
      break;
    }
    yield part.value * SHARE_OF_MATES;
  }
  const flipped = flips(lines, mates);
  const all = PIECES.reduce((sum, pieces, c) => sum + pieces * ROUNDS[c], 0);
  let done = 0;
  let points = ends(lines);
  for (let c = 0; c < PIECES.length; c++) {
    points = cut(points, PIECES[c]);
    let next: Points = points.slice();
    for (let round = 0; round < ROUNDS[c]; round++) {
      pull(points, next, mates, flipped, PIECES[c], STIFF[c]);
      [points, next] = [next, points];
      done += PIECES[c];
      yield SHARE_OF_MATES + (1 - SHARE_OF_MATES) * (done / all);
    }
  }
  return { ...inner(points, unit), mates };
}

/** Points of all lines with their ends, x and y of each: line i has pieces + 1 of them. */
type Points = Float64Array<ArrayBuffer>;

function inFixedWidth({ ax, ay, bx, by }: Chords): { unit: number; lines: Chords } {
  const span = (a: Float64Array, b: Float64Array): number => {
    let least = Infinity;
    let most = -Infinity;
    for (const values of [a, b])
      for (const value of values) {
        if (value < least) least = value;
        if (value > most) most = value;
      }
    return most - least;
  };
  const unit = SPAN / (Math.max(span(ax, bx), span(ay, by)) || 1);
  const by1000 = (values: Float64Array): Float64Array => values.map((value) => value * unit);
  return { unit, lines: { ax: by1000(ax), ay: by1000(ay), bx: by1000(bx), by: by1000(by) } };
}

/** 1 for a mate that runs the other way: its last point belongs to the first of the line. */
function flips({ ax, ay, bx, by }: Chords, { of, count }: CompatibleEdges): Uint8Array {
  const flipped = new Uint8Array(of.length);
  for (let p = 0; p < count.length; p++)
    for (let m = p * MOST_MATES; m < p * MOST_MATES + count[p]; m++) {
      const q = of[m];
      if ((bx[p] - ax[p]) * (bx[q] - ax[q]) + (by[p] - ay[p]) * (by[q] - ay[q]) < 0) flipped[m] = 1;
    }
  return flipped;
}

function ends({ ax, ay, bx, by }: Chords): Points {
  const points = new Float64Array(4 * ax.length);
  for (let i = 0; i < ax.length; i++) {
    points[4 * i] = ax[i];
    points[4 * i + 1] = ay[i];
    points[4 * i + 2] = bx[i];
    points[4 * i + 3] = by[i];
  }
  return points;
}

/** The same lines with a further point in the middle of each piece. */
function cut(points: Points, pieces: number): Points {
  const before = pieces / 2 + 1;
  const lines = points.length / (2 * before);
  const out = new Float64Array(2 * lines * (pieces + 1));
  for (let i = 0; i < lines; i++) {
    const from = 2 * i * before;
    const to = 2 * i * (pieces + 1);
    for (let k = 0; k < 2 * before; k++) {
      const at = to + 4 * (k >> 1) + (k & 1);
      out[at] = points[from + k];
      if (k >= 2) out[at - 2] = (points[from + k - 2] + points[from + k]) / 2;
    }
  }
  return out;
}

/** One round: where each point goes, from where all were before it. */
function pull(
  now: Points,
  next: Points,
  { of, count }: CompatibleEdges,
  flipped: Uint8Array,
  pieces: number,
  stiff: number,
): void {
  const room = 2 * (pieces + 1);
  const lines = count.length;
  const force = new Float64Array(room);
  const soft = SOFT * SOFT;
  for (let p = 0; p < lines; p++) {
    if (count[p] === 0) continue;
    const own = p * room;
    force.fill(0);
    for (let m = p * MOST_MATES; m < p * MOST_MATES + count[p]; m++) {
      const isFlipped = flipped[m] === 1;
      const step = isFlipped ? -2 : 2;
      let at = of[m] * room + (isFlipped ? 2 * (pieces - 1) : 2);
      for (let k = 2; k < 2 * pieces; k += 2, at += step) {
        const dx = now[at] - now[own + k];
        const dy = now[at + 1] - now[own + k + 1];
        const share = 1 / (dx * dx + dy * dy + soft);
        force[k] += dx * share;
        force[k + 1] += dy * share;
      }
    }
    for (let k = 2; k < 2 * pieces; k += 2) {
      // Towards the ends the pull fades, so that ties spread to their nodes in soft bends.
      const place = k / (2 * pieces);
      const gain = (STEP / count[p]) * 4 * place * (1 - place);
      const at = own + k;
      let dx = force[k] * gain + stiff * (now[at - 2] + now[at + 2] - 2 * now[at]);
      let dy = force[k + 1] * gain + stiff * (now[at - 1] + now[at + 3] - 2 * now[at + 1]);
      const far = Math.sqrt(dx * dx + dy * dy);
      if (far > FARTHEST) {
        dx *= FARTHEST / far;
        dy *= FARTHEST / far;
      }
      next[at] = now[at] + dx;
      next[at + 1] = now[at + 1] + dy;
    }
  }
}

/** The points without the ends, in the unit of the places. */
function inner(points: Points, unit: number): { x: Float64Array; y: Float64Array } {
  const room = 2 * (INNER + 2);
  const lines = points.length / room;
  const part = (first: number): Float64Array => {
    const out = new Float64Array(lines * INNER);
    for (let i = 0; i < lines; i++)
      for (let k = 0; k < INNER; k++) out[i * INNER + k] = points[i * room + first + 2 * (k + 1)] / unit;
    return out;
  };
  return { x: part(0), y: part(1) };
}
