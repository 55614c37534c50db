/** A leaf of the tree holds at most this many points; whole leaves, not points, walk the tree. */
const LEAF = 12;
const LEVELS = 15;
/** Smallest squared distance used, so that two points in one place do not fly apart. */
const NEAREST = 1e-4;

/**
 * Repulsion between all points by a quadtree (Barnes & Hut 1986, Nature 324): the force between two points is the product
 * of their masses over their distance. Points are put in Morton order, so that the tree is a few flat arrays in preorder;
 * each leaf gathers once what is near and far for all of its points.
 * Memory is kept from call to call. Uses only + - * / on numbers, hence the same result in every engine.
 */
export class Repulsion {
  private readonly sortedX: Float64Array;
  private readonly sortedY: Float64Array;
  private readonly sortedMass: Float64Array;
  private readonly code: Uint32Array;
  private readonly spareCode: Uint32Array;
  private order: Uint32Array;
  private spareOrder: Uint32Array;
  private readonly bins = new Uint32Array(1024);

  private start: Uint32Array;
  private end: Uint32Array;
  private skip: Uint32Array;
  private isLeaf: Uint8Array;
  private side: Float64Array;
  private mass: Float64Array;
  private centreX: Float64Array;
  private centreY: Float64Array;
  private cells = 0;

  private readonly farX: Float64Array;
  private readonly farY: Float64Array;
  private readonly farMass: Float64Array;
  private nearStart: Uint32Array;
  private nearEnd: Uint32Array;

  /**
   * @param count number of points
   * @param theta a cell is taken as one point when its side is less than theta times its distance
   */
  constructor(
    private readonly count: number,
    private readonly theta = 1.1,
  ) {
    const n = count;
    this.sortedX = new Float64Array(n);
    this.sortedY = new Float64Array(n);
    this.sortedMass = new Float64Array(n);
    this.code = new Uint32Array(n);
    this.spareCode = new Uint32Array(n);
    this.order = new Uint32Array(n);
    this.spareOrder = new Uint32Array(n);
    const cells = Math.max(64, 2 * n + LEVELS * 4);
    this.start = new Uint32Array(cells);
    this.end = new Uint32Array(cells);
    this.skip = new Uint32Array(cells);
    this.isLeaf = new Uint8Array(cells);
    this.side = new Float64Array(cells);
    this.mass = new Float64Array(cells);
    this.centreX = new Float64Array(cells);
    this.centreY = new Float64Array(cells);
    this.farX = new Float64Array(cells);
    this.farY = new Float64Array(cells);
    this.farMass = new Float64Array(cells);
    this.nearStart = new Uint32Array(cells);
    this.nearEnd = new Uint32Array(cells);
  }

  /** Adds the force on every point to forceX and forceY. */
  addTo(
    x: Float64Array,
    y: Float64Array,
    mass: Float64Array,
    strength: number,
    forceX: Float64Array,
    forceY: Float64Array,
  ): void {
    if (this.count < 2) return;
    const side = this.sortPoints(x, y, mass);
    this.cells = 0;
    this.buildCell(0, this.count, side, LEVELS);
    this.sumMasses();
    this.pushLeaves(strength, forceX, forceY);
  }

  /** Puts the points in Morton order and returns the side of the square around them. */
  private sortPoints(x: Float64Array, y: Float64Array, mass: Float64Array): number {
    const n = this.count;
    let left = Infinity;
    let right = -Infinity;
    let top = Infinity;
    let bottom = -Infinity;
    for (let i = 0; i < n; i++) {
      if (x[i] < left) left = x[i];
      if (x[i] > right) right = x[i];
      if (y[i] < top) top = y[i];
      if (y[i] > bottom) bottom = y[i];
    }
    const side = Math.max(right - left, bottom - top, 1e-9) * 1.000001;
    const scale = (1 << LEVELS) / side;
    for (let i = 0; i < n; i++) {
      this.code[i] = spread((x[i] - left) * scale) | (spread((y[i] - top) * scale) << 1);
      this.order[i] = i;
    }
    this.radixSort();
    for (let i = 0; i < n; i++) {
      const p = this.order[i];
      this.sortedX[i] = x[p];
      this.sortedY[i] = y[p];
      this.sortedMass[i] = mass[p];
    }
    return side;
  }

  private radixSort(): void {
    const n = this.count;
    let from = this.code;
    let to = this.spareCode;
    for (let shift = 0; shift < 30; shift += 10) {
      const bins = this.bins.fill(0);
      for (let i = 0; i < n; i++) bins[(from[i] >>> shift) & 1023]++;
      let sum = 0;
      for (let b = 0; b < 1024; b++) {
        const size = bins[b];
        bins[b] = sum;
        sum += size;
      }
      for (let i = 0; i < n; i++) {
        const slot = bins[(from[i] >>> shift) & 1023]++;
        to[slot] = from[i];
        this.spareOrder[slot] = this.order[i];
      }
      [from, to] = [to, from];
      [this.order, this.spareOrder] = [this.spareOrder, this.order];
    }
    if (from !== this.code) this.code.set(from);
  }

  private buildCell(start: number, end: number, side: number, level: number): void {
    const cell = this.cells++;
    this.start[cell] = start;
    this.end[cell] = end;
    this.side[cell] = side;
    if (end - start <= LEAF || level === 0) {
      this.isLeaf[cell] = 1;
    } else {
      this.isLeaf[cell] = 0;
      const shift = 2 * (level - 1);
      let from = start;
      for (let quarter = 0; quarter < 4 && from < end; quarter++) {
        const to = quarter === 3 ? end : this.firstBeyond(from, end, shift, quarter);
        if (to > from) this.buildCell(from, to, side / 2, level - 1);
        from = to;
      }
    }
    this.skip[cell] = this.cells;
  }

  /** The first point from `low` on whose two bits at `shift` are above `quarter`. */
  private firstBeyond(low: number, high: number, shift: number, quarter: number): number {
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (((this.code[middle] >>> shift) & 3) > quarter) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  private sumMasses(): void {
    const { sortedX, sortedY, sortedMass } = this;
    for (let cell = this.cells - 1; cell >= 0; cell--) {
      let mass = 0;
      let mx = 0;
      let my = 0;
      if (this.isLeaf[cell]) {
        for (let i = this.start[cell]; i < this.end[cell]; i++) {
          mass += sortedMass[i];
          mx += sortedMass[i] * sortedX[i];
          my += sortedMass[i] * sortedY[i];
        }
      } else {
        for (let child = cell + 1; child < this.skip[cell]; child = this.skip[child]) {
          mass += this.mass[child];
          mx += this.mass[child] * this.centreX[child];
          my += this.mass[child] * this.centreY[child];
        }
      }
      this.mass[cell] = mass;
      this.centreX[cell] = mx / mass;
      this.centreY[cell] = my / mass;
    }
  }

  private pushLeaves(strength: number, forceX: Float64Array, forceY: Float64Array): void {
    const { cells, isLeaf, skip, side, mass, centreX, centreY, start, end } = this;
    const { farX, farY, farMass, nearStart, nearEnd } = this;
    const wide = 1 / (this.theta * this.theta);
    for (let leaf = 0; leaf < cells; leaf++) {
      if (!isLeaf[leaf]) continue;
      const cx = centreX[leaf];
      const cy = centreY[leaf];
      let far = 0;
      let near = 0;
      let cell = 0;
      while (cell < cells) {
        const dx = cx - centreX[cell];
        const dy = cy - centreY[cell];
        const s = side[cell] + side[leaf];
        if (s * s * wide < dx * dx + dy * dy) {
          farX[far] = centreX[cell];
          farY[far] = centreY[cell];
          farMass[far++] = mass[cell];
          cell = skip[cell];
        } else if (isLeaf[cell]) {
          nearStart[near] = start[cell];
          nearEnd[near++] = end[cell];
          cell = skip[cell];
        } else {
          cell++;
        }
      }
      for (let i = start[leaf]; i < end[leaf]; i++) this.pushPoint(i, far, near, strength, forceX, forceY);
    }
  }

  private pushPoint(
    i: number,
    far: number,
    near: number,
    strength: number,
    forceX: Float64Array,
    forceY: Float64Array,
  ): void {
    const { farX, farY, farMass, nearStart, nearEnd, sortedX, sortedY, sortedMass } = this;
    const x = sortedX[i];
    const y = sortedY[i];
    let fx = 0;
    let fy = 0;
    for (let c = 0; c < far; c++) {
      const dx = x - farX[c];
      const dy = y - farY[c];
      const f = farMass[c] / (dx * dx + dy * dy);
      fx += dx * f;
      fy += dy * f;
    }
    for (let c = 0; c < near; c++) {
      for (let j = nearStart[c], last = nearEnd[c]; j < last; j++) {
        const dx = x - sortedX[j];
        const dy = y - sortedY[j];
        const d2 = dx * dx + dy * dy;
        const f = sortedMass[j] / (d2 > NEAREST ? d2 : NEAREST);
        fx += dx * f;
        fy += dy * f;
      }
    }
    const p = this.order[i];
    const scale = strength * sortedMass[i];
    forceX[p] += scale * fx;
    forceY[p] += scale * fy;
  }
}

/** Spreads the lowest 15 bits of a number over the even bits. */
function spread(value: number): number {
  let v = value & 0x7fff;
  v = (v | (v << 8)) & 0x00ff00ff;
  v = (v | (v << 4)) & 0x0f0f0f0f;
  v = (v | (v << 2)) & 0x33333333;
  return (v | (v << 1)) & 0x55555555;
}
