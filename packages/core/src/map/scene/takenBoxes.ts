import type { TextBox } from '../marks/notes/calloutLine';

/** Height of a band in which boxes are looked for, in pixels. */
const BAND = 24;

/** Boxes that no name may cover, by bands of the picture, so that only those of about the same height are looked at. */
export class TakenBoxes {
  private readonly bands: TextBox[][];

  constructor(height: number) {
    this.bands = Array.from({ length: Math.max(1, Math.ceil(height / BAND)) }, () => []);
  }

  add(box: TextBox): void {
    for (let band = this.bandOf(box.top); band <= this.bandOf(box.bottom); band++) this.bands[band].push(box);
  }

  touch(box: TextBox): boolean {
    for (let band = this.bandOf(box.top); band <= this.bandOf(box.bottom); band++)
      for (const other of this.bands[band]) if (overlap(box, other)) return true;
    return false;
  }

  private bandOf(y: number): number {
    return Math.max(0, Math.min(this.bands.length - 1, Math.floor(y / BAND)));
  }
}

function overlap(a: TextBox, b: TextBox): boolean {
  return a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
}
