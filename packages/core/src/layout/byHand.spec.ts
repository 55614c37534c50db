import fc from 'fast-check';
import { HAND_MOVES, movedByHand } from './byHand';

const places = { x: Float32Array.of(0, 10, 40, 99), y: Float32Array.of(0, 20, 10, 99) };
const radius = Float32Array.of(3, 3, 3, 3);
const rounded = (pairs: [number, number][]) => pairs.map((p) => p.map((v) => Math.round(v * 1000) / 1000));

describe('movedByHand', () => {
  const move = (how: (typeof HAND_MOVES)[number]) => rounded(movedByHand(how, [0, 1, 2], places, radius));

  it('lines up at the mean', () => {
    expect(move('row')).toEqual([[0, 10], [10, 10], [40, 10]]); // prettier-ignore
    expect(move('column').map(([x]) => x)).toEqual([16.667, 16.667, 16.667]);
  });

  it('spreads with the same gaps, in the order in which the nodes lie', () => {
    expect(move('spread across')).toEqual([[0, 0], [20, 20], [40, 10]]); // prettier-ignore
    expect(move('spread down')).toEqual([[0, 0], [10, 20], [40, 10]]); // prettier-ignore
  });

  it('puts on a circle with room between neighbours', () => {
    const on = movedByHand('circle', [0, 1, 2, 3], places, radius);
    const [mx, my] = [149 / 4, 129 / 4];
    const far = on.map(([x, y]) => Math.hypot(x - mx, y - my));
    for (const r of far) expect(r).toBeCloseTo((4 * (6 + 12)) / (2 * Math.PI));
    // Round their middle the four lie as 0, 2, 3, 1: neighbours on the circle are a quarter turn apart.
    expect(Math.hypot(on[0][0] - on[2][0], on[0][1] - on[2][1])).toBeCloseTo(far[0] * Math.SQRT2);
  });

  it('turns by 15 degrees, and mirrors, and back again', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          ['turn left', 'turn right'],
          ['mirror across', 'mirror across'],
          ['mirror down', 'mirror down'],
          ['wider', 'closer'],
        ),
        ([there, back]) => {
          // prettier-ignore
          const once = movedByHand(there, [0, 1, 2], places, radius);
          const x = once.map((p) => p[0]);
          const y = once.map((p) => p[1]);
          const again = movedByHand(back, [0, 1, 2], { x, y }, radius);
          again.forEach(([px, py], v) => {
            expect(px).toBeCloseTo(places.x[v]);
            expect(py).toBeCloseTo(places.y[v]);
          });
        },
      ),
    );
  });

  it('leaves the middle where it was, except for gaps made equal', () => {
    for (const how of HAND_MOVES.filter((one) => !one.startsWith('spread') && one !== 'circle')) {
      const after = movedByHand(how, [0, 1, 2], places, radius);
      expect(after.reduce((sum, [x]) => sum + x, 0)).toBeCloseTo(50);
      expect(after.reduce((sum, [, y]) => sum + y, 0)).toBeCloseTo(30);
    }
  });
});
