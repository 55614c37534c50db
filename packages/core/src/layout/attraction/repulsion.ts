/** A leaf of the tree holds at most this many points; whole leaves, not points, walk the tree. */
const LEAF = 12;
const LEVELS = 15;
/** Smallest squared distance used, so that two points in one place do not fly apart. */
const NEAREST = 1e-4;

/**
 * Repulsion between all points by a quadtree (Barnes & Hut 1986, Nature 324): the force between two points is the product
 * of their masses over their distance. Points are put in Morton order, so that the tree is a few flat arrays in preorder. In the plane this
 * force is the conjugate of a complex function that is smooth away from its source, so that what is far acts on a cell as a polynomial of
 * four terms, which is handed down to the cells in it (the local expansions of Greengard & Rokhlin 1987, Journal of Computational Physics 73).
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
  private side: Float64Array;
  private mass: Float64Array;
  private centreX: Float64Array;
  private centreY: Float64Array;
  private cells = 0;

  /** Of each depth the force of what is far as a polynomial: real and imaginary parts of four terms, from the constant one on. */
  private readonly far = new Float64Array(8 * (LEVELS + 2));
  /** Cells that are not yet far, those of each depth after those of the one before. */
  private open = new Uint32Array(1024);
  private strength = 1;
  private forceX: Float64Array = new Float64Array(0);
  private forceY: Float64Array = new Float64Array(0);
  private readonly wide: number;
  private nearStart: Uint32Array;
  private nearEnd: Uint32Array;

  /**
   * @param count number of points
   * @param theta a cell is taken as one point when its side is less than theta times its distance
   */
  constructor(
    private readonly count: number,
    theta = 1.5,
  ) {
    this.wide = 1 / (theta * theta);
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
    this.side = new Float64Array(cells);
    this.mass = new Float64Array(cells);
    this.centreX = new Float64Array(cells);
    this.centreY = new Float64Array(cells);
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
    this.strength = strength;
    this.forceX = forceX;
    this.forceY = forceY;
    this.far.fill(0, 0, 8);
    this.open[0] = 0;
    this.descend(0, 0, 0, 1);
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
    // A cell without others in it is a leaf: the one to skip to is the next one.
    if (end - start > LEAF && level > 0) {
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
      if (this.skip[cell] === cell + 1) {
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

  /**
   * Goes down the tree with the cells that are not yet far: what is far of a cell acts on all points in it at once.
   * @param first where in `open` the cells stand that are to be looked at, before `last`
   */
  private descend(cell: number, depth: number, first: number, last: number): void {
    const { skip, mass, centreX, centreY, start, end } = this;
    const isLeaf = skip[cell] === cell + 1;
    const own = this.side[cell];
    const x = centreX[cell];
    const y = centreY[cell];
    let top = last;
    let near = 0;
    for (let i = first; i < last; i++) {
      // The cell itself; where it is opened, the cells in it one after the other.
      let other = this.open[i];
      const beyond = skip[other];
      while (other < beyond) {
        const dx = x - centreX[other];
        const dy = y - centreY[other];
        const d2 = dx * dx + dy * dy;
        const reach = this.side[other] + own;
        const isLast = skip[other] === other + 1;
        if (reach * reach * this.wide < d2) {
          this.addFar(depth, mass[other], dx / d2, -dy / d2);
          other = skip[other];
        } else if (!isLast && (isLeaf || this.side[other] > own)) {
          other++;
        } else {
          if (isLeaf) {
            this.nearStart[near] = start[other];
            this.nearEnd[near++] = end[other];
          } else {
            if (top === this.open.length) this.open = grown(this.open);
            this.open[top++] = other;
          }
          other = skip[other];
        }
      }
    }
    if (isLeaf) {
      for (let i = start[cell]; i < end[cell]; i++) this.pushPoint(i, cell, 8 * depth, near);
      return;
    }
    for (let child = cell + 1; child < skip[cell]; child = skip[child]) {
      this.shift(depth, centreX[child] - x, centreY[child] - y);
      this.descend(child, depth + 1, last, top);
    }
  }

  /** Adds a far mass to the polynomial of a depth; u and v are 1 divided by its distance as a complex number. */
  private addFar(depth: number, mass: number, u: number, v: number): void {
    const { far } = this;
    const at = 8 * depth;
    const re1 = mass * u;
    const im1 = mass * v;
    const re2 = im1 * v - re1 * u;
    const im2 = -(re1 * v + im1 * u);
    const re3 = im2 * v - re2 * u;
    const im3 = -(re2 * v + im2 * u);
    far[at] += re1;
    far[at + 1] += im1;
    far[at + 2] += re2;
    far[at + 3] += im2;
    far[at + 4] += re3;
    far[at + 5] += im3;
    far[at + 6] += im3 * v - re3 * u;
    far[at + 7] -= re3 * v + im3 * u;
  }

  /** The polynomial of a depth round another middle, u and v away, for the next depth. */
  private shift(depth: number, u: number, v: number): void {
    const { far } = this;
    const from = 8 * depth;
    const to = from + 8;
    for (let k = 0; k < 8; k++) far[to + k] = far[from + k];
    // Horner's rule again and again, without the lowest term each time.
    for (let low = 0; low < 6; low += 2)
      for (let k = 4; k >= low; k -= 2) {
        const re = far[to + k + 2];
        const im = far[to + k + 3];
        far[to + k] += re * u - im * v;
        far[to + k + 1] += re * v + im * u;
      }
  }

  private pushPoint(i: number, leaf: number, at: number, near: number): void {
    const { far, nearStart, nearEnd, sortedX, sortedY, sortedMass } = this;
    const x = sortedX[i];
    const y = sortedY[i];
    const u = x - this.centreX[leaf];
    const v = y - this.centreY[leaf];
    let re = far[at + 6];
    let im = far[at + 7];
    for (let k = 4; k >= 0; k -= 2) {
      const next = re * u - im * v + far[at + k];
      im = re * v + im * u + far[at + k + 1];
      re = next;
    }
    // The force is the conjugate.
    let fx = re;
    let fy = -im;
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
    const scale = this.strength * sortedMass[i];
    this.forceX[p] += scale * fx;
    this.forceY[p] += scale * fy;
  }
}

function grown(list: Uint32Array<ArrayBuffer>): Uint32Array<ArrayBuffer> {
  const larger = new Uint32Array(2 * list.length);
  larger.set(list);
  return larger;
}

/** Spreads the lowest 15 bits of a number over the even bits. */
function spread(value: number): number {
  let v = value & 0x7fff;
  v = (v | (v << 8)) & 0x00ff00ff;
  v = (v | (v << 4)) & 0x0f0f0f0f;
  v = (v | (v << 2)) & 0x33333333;
  return (v | (v << 1)) & 0x55555555;
}
