import { keepHeld } from './held';

const x = Float32Array.of(0, 10, 10, 0);
const y = Float32Array.of(0, 0, 10, 10);

describe('held nodes', () => {
  it('are just where they were, and the rest goes with them: turned, scaled and moved', () => {
    // The square turned by a quarter, twice as large, somewhere else.
    const placed = keepHeld(
      x,
      y,
      new Map([
        [0, [100, 100]],
        [1, [100, 120]],
      ]),
    );
    expect([...placed.x].map(Math.round)).toEqual([100, 100, 80, 80]);
    expect([...placed.y].map(Math.round)).toEqual([100, 120, 120, 100]);
  });

  it('only move the picture where there is one of them, and leave it where there is none', () => {
    expect([...keepHeld(x, y, new Map([[2, [0, 0]]])).x]).toEqual([-10, 0, 0, -10]);
    expect(keepHeld(x, y, new Map()).x).toBe(x);
  });

  it('stand also where all begin in one place', () => {
    const zero = new Float32Array(3);
    const held = new Map([
      [0, [5, 5] as const],
      [1, [9, 9] as const],
    ]);
    const placed = keepHeld(zero, zero, held);
    expect([placed.x[0], placed.x[1]]).toEqual([5, 9]);
    expect([...placed.x, ...placed.y].every(Number.isFinite)).toBe(true);
  });
});
