/** Pictures that were read to be painted on a canvas, by their address. */
export class PictureShelf {
  private readonly read = new Map<string, HTMLImageElement>();
  private readonly asked = new Set<string>();

  /** @param came is told when a picture that was asked for can be painted */
  constructor(private readonly came: () => void) {}

  /** The picture; null for one that is not read yet, or cannot be. */
  readonly of = (address: string): HTMLImageElement | null => {
    const known = this.read.get(address);
    if (known) return known;
    if (!this.asked.has(address)) {
      this.asked.add(address);
      const image = new Image();
      image.onload = () => {
        this.read.set(address, image);
        this.came();
      };
      image.src = address;
    }
    return null;
  };
}
