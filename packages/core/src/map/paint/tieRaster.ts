import type { CurveBatch, LineBatch, Scene } from '../scene/scene';

/** From so many ties on they are painted point by point: paths of a canvas get slow, and nobody sees the edges of single ones any more. */
export const RASTER_FROM = 40_000;
/** Farthest distance of the pieces of a curve from the curve, in points. */
const TOLERANCE = 0.6;
/** Coverage is counted in these parts of a point. */
const PARTS = 4;
/** Points that are painted together, in whole rows: their counts stay near at hand in the memory of the processor. */
const STRIP = 250_000;
/** Half of the width of the widest tie, in points. */
const THICKEST = 12;
/** What shows through less is not seen. */
const INVISIBLE = 1 / 512;
/** Points whose colours are mixed together. */
const MIXED = 2048;
/** Ties that are counted together, so that no count overflows. */
const MOST_COUNTED = 12_000;

/** A picture as rows of red, green, blue and opacity, 0 to 255 each, to be laid over others. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** The lines and curves of a scene. */
export type TieScene = Pick<Scene, 'width' | 'height' | 'lines' | 'curves'>;

/** Which part of the work is done. */
export interface RasterPart {
  /** Rows of the picture from one on and before another; all without them. */
  readonly from?: number;
  readonly until?: number;
  /** Of each so many ties one is painted, as strong as all of them: a sketch, which takes less time. */
  readonly every?: number;
  /** Points of the screen for each pixel of the scene; the same as of the picture without it. */
  readonly screen?: number;
}

/** How high the picture of a scene is in points. */
export function rasterRows({ height }: Pick<Scene, 'height'>, ratio: number): number {
  return Math.max(1, Math.round(height * ratio));
}

/** How many ties a scene has to paint. */
export function tiesIn({ lines, curves }: TieScene): number {
  const count = (batches: readonly { points: Float32Array }[], each: number): number =>
    batches.reduce((sum, { points }) => sum + points.length / each, 0);
  return count(lines, 4) + count(curves, 6);
}

/** Batches with one pen that are counted together. */
interface Group {
  readonly batches: readonly (LineBatch | CurveBatch)[];
  readonly each: 4 | 6;
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  /** How much still shows through a point, by its count; more than the last changes nothing. */
  readonly through: Float64Array;
}

/**
 * The lines and curves of a scene as points, without smooth edges. Of each pen is counted how often it covers each point; its colour is laid
 * over the others as a canvas does it: lines thinner than a point one by one, wider ones as if the batches of the pen covered the point
 * alike and each covered it once. Kept from frame to frame, since its memory is.
 */
export class TieRaster {
  private width = 0;
  /** Rows of the present strip, and the first of them in the picture. */
  private height = 0;
  private top = 0;
  /** One of so many ties is painted; the next one is so many ties on. */
  private every = 1;
  private turn = 0;
  /** Of each group the counts of the points of a strip. */
  private counts: Uint16Array[] = [];
  private present: Uint16Array = new Uint16Array(0);
  private readonly mix = new Float64Array(4 * MIXED);
  private image: Uint8ClampedArray<ArrayBuffer> = new Uint8ClampedArray(0);

  /** @param ratio points of the picture for each pixel of the scene */
  paint(scene: TieScene, ratio: number, part: RasterPart = {}): Raster {
    const strips = this.painting(scene, ratio, part);
    for (;;) {
      const strip = strips.next();
      if (strip.done) return strip.value;
    }
  }

  /** The same strip by strip, so that other work can be done in between; the picture is whole at the end. */
  *painting(scene: TieScene, ratio: number, part: RasterPart = {}): Generator<void, Raster> {
    const width = Math.max(1, Math.round(scene.width * ratio));
    const { from = 0, until = rasterRows(scene, ratio), every = 1, screen = ratio } = part;
    const height = until - from;
    this.every = every;
    if (this.image.length !== 4 * width * height || width !== this.width) {
      this.width = width;
      this.counts = [];
      this.image = new Uint8ClampedArray(4 * width * height);
    }
    const groups = [...groupsOf(scene.lines, 4, screen), ...groupsOf(scene.curves, 6, screen)];
    const rows = Math.max(1, Math.floor(STRIP / width));
    while (this.counts.length < groups.length) this.counts.push(new Uint16Array(width * rows));
    for (this.top = from; this.top < until; this.top += rows) {
      this.height = Math.min(rows, until - this.top);
      groups.forEach(({ batches, each }, g) => {
        this.present = this.counts[g];
        this.turn = 0;
        for (const batch of batches)
          if (each === 4) this.traceLines(batch, ratio);
          else this.traceCurves(batch, ratio);
      });
      this.finish(groups, from);
      yield;
    }
    return { width, height, rgba: this.image };
  }

  private traceLines({ points, width }: LineBatch, ratio: number): void {
    const { top, every } = this;
    let i = 4 * this.turn;
    for (; i < points.length; i += 4 * every) {
      const ay = points[i + 1] * ratio - top;
      const by = points[i + 3] * ratio - top;
      if (this.isInStrip(ay, ay, by))
        this.segment(points[i] * ratio, ay, points[i + 2] * ratio, by, width * ratio);
    }
    this.turn = (i - points.length) / 4;
  }

  private traceCurves({ points, width }: CurveBatch, ratio: number): void {
    const { top, every } = this;
    let i = 6 * this.turn;
    for (; i < points.length; i += 6 * every) {
      const ay = points[i + 1] * ratio - top;
      const cy = points[i + 3] * ratio - top;
      const by = points[i + 5] * ratio - top;
      if (!this.isInStrip(ay, cy, by)) continue;
      const ax = points[i] * ratio;
      const cx = points[i + 2] * ratio;
      const bx = points[i + 4] * ratio;
      const bend = Math.abs(ax - 2 * cx + bx) + Math.abs(ay - 2 * cy + by);
      const pieces = Math.max(1, Math.min(64, Math.ceil(Math.sqrt(bend / (4 * TOLERANCE)))));
      let fromX = ax;
      let fromY = ay;
      for (let p = 1; p <= pieces; p++) {
        const t = p / pieces;
        const s = 1 - t;
        const x = s * s * ax + 2 * s * t * cx + t * t * bx;
        const y = s * s * ay + 2 * s * t * cy + t * t * by;
        if (this.isInStrip(fromY, fromY, y)) this.segment(fromX, fromY, x, y, width * ratio);
        fromX = x;
        fromY = y;
      }
    }
    this.turn = (i - points.length) / 6;
  }

  /** Whether what lies between three heights may touch the strip. */
  private isInStrip(a: number, b: number, c: number): boolean {
    const low = -THICKEST;
    const high = this.height + THICKEST;
    return !((a < low && b < low && c < low) || (a > high && b > high && c > high));
  }

  /** A straight piece: one point for each step along its longer side, several across where it is thick. */
  private segment(ax: number, ay: number, bx: number, by: number, thick: number): void {
    const { width, height } = this;
    if (Math.abs(bx - ax) >= Math.abs(by - ay)) {
      if (ax <= bx) this.steps(ax, ay, bx, by, width, height, 1, width, thick);
      else this.steps(bx, by, ax, ay, width, height, 1, width, thick);
    } else if (ay <= by) this.steps(ay, ax, by, bx, height, width, width, 1, thick);
    else this.steps(by, bx, ay, ax, height, width, width, 1, thick);
  }

  /**
   * @param a where it begins along its longer side, `b` where it ends; `p` and `q` the same across
   * @param along how many points the picture has along, `across` across it
   * @param next distance of points along in the picture, `aside` across
   */
  private steps(
    a: number,
    p: number,
    b: number,
    q: number,
    along: number,
    across: number,
    next: number,
    aside: number,
    thick: number,
  ): void {
    const length = b - a;
    if (length < 1e-6 || b <= 0 || a >= along) return;
    const slope = (q - p) / length;
    const covers = thick * Math.sqrt(1 + slope * slope);
    const rows = Math.max(1, Math.round(covers));
    const parts = this.every * Math.max(1, Math.round((PARTS * covers) / rows));
    for (let row = 0; row < rows; row++)
      this.row(a, p + row - (rows - 1) / 2, b, slope, along, across, next, aside, parts);
  }

  private row(
    a: number,
    p: number,
    b: number,
    slope: number,
    along: number,
    across: number,
    next: number,
    aside: number,
    parts: number,
  ): void {
    // Points whose middles lie on it, as far as they lie in the picture.
    let first = Math.max(0, Math.ceil(a - 0.5));
    let last = Math.min(along - 1, Math.ceil(b - 0.5) - 1);
    if (slope > 0) {
      first = Math.max(first, Math.ceil(a - 0.5 - p / slope));
      last = Math.min(last, Math.floor(a - 0.5 + (across - 0.01 - p) / slope));
    } else if (slope < 0) {
      first = Math.max(first, Math.ceil(a - 0.5 + (across - 0.01 - p) / slope));
      last = Math.min(last, Math.floor(a - 0.5 - p / slope));
    } else if (p < 0 || p >= across) return;
    if (last < first) return;
    const counts = this.present;
    // In parts of 65,536, so that all are whole numbers.
    let at = Math.round((p + (first + 0.5 - a) * slope) * 65536) | 0;
    const step = Math.round(slope * 65536) | 0;
    const end = ((last + 1) * next) | 0;
    if (aside === 1)
      for (let point = (first * next) | 0; point < end; point += next, at += step)
        counts[point + (at >> 16)] += parts;
    else
      for (let point = first | 0; point < end; point++, at += step)
        counts[point + Math.imul(at >> 16, aside)] += parts;
  }

  /** Lays what the pens have covered over each other, writes it into the picture, and forgets it. */
  private finish(groups: readonly Group[], from: number): void {
    const { image } = this;
    const counts = this.counts.slice(0, groups.length);
    const points = this.width * this.height;
    const first = 4 * this.width * (this.top - from);
    for (let begin = 0; begin < points; begin += MIXED) {
      const end = Math.min(points, begin + MIXED);
      const mix = this.mix.fill(0);
      for (let i = 3; i < mix.length; i += 4) mix[i] = 1;
      groups.forEach((group, g) => lay(mix, group, counts[g], begin, end));
      write(image, first + 4 * begin, mix, 4 * (end - begin));
    }
    for (const one of counts) one.fill(0, 0, points);
  }
}

/** Lays the colour of a pen over some points, as often as it covers each; a mix is red, green, blue and what still shows through. */
function lay(mix: Float64Array, group: Group, counts: Uint16Array, begin: number, end: number): void {
  const { through, red, green, blue } = group;
  const most = through.length - 1;
  for (let i = begin, at = 0; i < end; i++, at += 4) {
    // Where it covers nothing, all shows through.
    const count = counts[i];
    const left = through[count < most ? count : most];
    const share = 1 - left;
    mix[at] = mix[at] * left + red * share;
    mix[at + 1] = mix[at + 1] * left + green * share;
    mix[at + 2] = mix[at + 2] * left + blue * share;
    mix[at + 3] *= left;
  }
}

/** Writes mixes into a picture, from a place in it on. */
function write(image: Uint8ClampedArray, to: number, mix: Float64Array, until: number): void {
  for (let at = 0; at < until; at += 4) {
    const opacity = 1 - mix[at + 3];
    const part = opacity === 0 ? 0 : 1 / opacity;
    image[to + at] = mix[at] * part;
    image[to + at + 1] = mix[at + 1] * part;
    image[to + at + 2] = mix[at + 2] * part;
    image[to + at + 3] = 255 * opacity;
  }
}

function groupsOf(batches: readonly (LineBatch | CurveBatch)[], each: 4 | 6, screen: number): Group[] {
  const groups: (LineBatch | CurveBatch)[][] = [];
  let ties = 0;
  for (const batch of batches) {
    const last = groups.at(-1);
    const own = batch.points.length / each;
    if (last && isSamePen(last[0], batch) && ties + own <= MOST_COUNTED) {
      last.push(batch);
      ties += own;
    } else {
      groups.push([batch]);
      ties = own;
    }
  }
  return groups.map((same) => {
    const { stroke, alpha, width } = same[0];
    const [red, green, blue] = [1, 3, 5].map((i) => Number.parseInt(stroke.slice(i, i + 2), 16));
    const through = width * screen < 1 ? throughHairs(alpha) : throughBatches(alpha, same.length);
    return { batches: same, each, red, green, blue, through };
  });
}

/**
 * A canvas lays lines that are thinner than a point over each other one by one, also within a batch.
 */
function throughHairs(alpha: number): Float64Array {
  const one = 1 - alpha / PARTS;
  const length = Math.min(65536, Math.ceil(Math.log(INVISIBLE) / Math.log(one)) + 1);
  return Float64Array.from({ length }, (_, count) => one ** count);
}

/** Wider ones cover a point once in each batch. */
function throughBatches(alpha: number, batches: number): Float64Array {
  const length = PARTS * batches + 1;
  return Float64Array.from({ length }, (_, count) => (1 - (alpha * count) / PARTS / batches) ** batches);
}

function isSamePen(a: LineBatch | CurveBatch, b: LineBatch | CurveBatch): boolean {
  return a.stroke === b.stroke && a.alpha === b.alpha && a.width === b.width;
}
