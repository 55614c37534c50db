/** A box of a text on the screen. */
export interface TextBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * The line from the rim of a disc to the nearest point of a box: x, y of its start and end; nothing where they are not farther apart than
 * `far`, in pixels.
 */
export function calloutLine(
  { left, top, right, bottom }: TextBox,
  x: number,
  y: number,
  radius: number,
  far: number,
): number[] {
  const [endX, endY] = [Math.max(left, Math.min(right, x)), Math.max(top, Math.min(bottom, y))];
  const [dx, dy] = [endX - x, endY - y];
  const length = Math.hypot(dx, dy);
  if (length - radius <= far) return [];
  return [x + (dx / length) * (radius + 1), y + (dy / length) * (radius + 1), endX, endY];
}
