const CELL = 48;

/** Discs on the screen: their middles and radii; a radius of 0 stands for a disc that is not there. */
export interface Discs {
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
  readonly radius: ArrayLike<number>;
}

/** Finds the discs that may touch a box, by a grid of square cells over a picture. Discs outside the picture are left out. */
export class DiscGrid {
  private readonly columns: number;
  private readonly rows: number;
  /** Disc i of cell c stands at `start[c] + i`. */
  private readonly start: Uint32Array;
  private readonly members: Uint32Array;
  private readonly largest: number;

  constructor(
    private readonly discs: Discs,
    { width, height }: { width: number; height: number },
  ) {
    this.columns = Math.max(1, Math.ceil(width / CELL));
    this.rows = Math.max(1, Math.ceil(height / CELL));
    const cell = new Int32Array(discs.x.length);
    this.start = new Uint32Array(this.columns * this.rows + 1);
    for (let v = 0; v < cell.length; v++) {
      cell[v] = this.cellOf(discs.x[v], discs.y[v], discs.radius[v]);
      if (cell[v] >= 0) this.start[cell[v] + 1]++;
    }
    for (let c = 1; c < this.start.length; c++) this.start[c] += this.start[c - 1];
    this.members = new Uint32Array(this.start.at(-1)!);
    const next = this.start.slice();
    let largest = 0;
    for (let v = 0; v < cell.length; v++) {
      if (cell[v] < 0) continue;
      this.members[next[cell[v]]++] = v;
      largest = Math.max(largest, discs.radius[v]);
    }
    this.largest = largest;
  }

  /** Calls back with each disc whose bounds touch the box. */
  forEachIn(left: number, top: number, right: number, bottom: number, visit: (disc: number) => void): void {
    const { x, y, radius } = this.discs;
    const reach = this.largest;
    const lastColumn = this.column(right + reach);
    const lastRow = this.row(bottom + reach);
    for (let row = this.row(top - reach); row <= lastRow; row++) {
      for (let column = this.column(left - reach); column <= lastColumn; column++) {
        const c = row * this.columns + column;
        for (let i = this.start[c]; i < this.start[c + 1]; i++) {
          const v = this.members[i];
          const r = radius[v];
          if (x[v] + r >= left && x[v] - r <= right && y[v] + r >= top && y[v] - r <= bottom) visit(v);
        }
      }
    }
  }

  private cellOf(x: number, y: number, radius: number): number {
    const isOutside =
      x < -radius || y < -radius || x > this.columns * CELL + radius || y > this.rows * CELL + radius;
    return radius === 0 || isOutside ? -1 : this.row(y) * this.columns + this.column(x);
  }

  private column(x: number): number {
    return Math.max(0, Math.min(this.columns - 1, Math.floor(x / CELL)));
  }

  private row(y: number): number {
    return Math.max(0, Math.min(this.rows - 1, Math.floor(y / CELL)));
  }
}
