/**
 * The point at a share of a full turn on the circle with radius 1, clockwise from the top; y grows downwards. Made of + - * / alone, so that
 * it is the same in every engine; the error is below 1e-9.
 * @param share 0 to 1
 */
export function roundPoint(share: number): { x: number; y: number } {
  const turn = share - Math.floor(share);
  // Eighths of the circle, each by the series of sine and cosine at an angle of at most an eighth.
  const quarter = Math.floor(turn * 4 + 0.5);
  const angle = (turn - quarter / 4) * 2 * Math.PI;
  const square = angle * angle;
  const sine =
    angle *
    (1 - (square / 6) * (1 - (square / 20) * (1 - (square / 42) * (1 - (square / 72) * (1 - square / 110)))));
  const cosine =
    1 - (square / 2) * (1 - (square / 12) * (1 - (square / 30) * (1 - (square / 56) * (1 - square / 90))));
  switch (quarter % 4) {
    case 0:
      return { x: sine, y: -cosine };
    case 1:
      return { x: cosine, y: sine };
    case 2:
      return { x: -sine, y: cosine };
    default:
      return { x: -cosine, y: -sine };
  }
}
