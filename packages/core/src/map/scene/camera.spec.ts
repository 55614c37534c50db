import fc from 'fast-check';
import { middleOfFree, viewBeside } from './camera';

const whole = fc.integer({ min: -500, max: 500 });
const views = fc.record({ scale: fc.double({ min: 0.1, max: 10, noNaN: true }), x: whole, y: whole });
const fits = fc.record({ view: views, middle: fc.record({ x: whole, y: whole }) });

describe('viewBeside', () => {
  it('shows all when the first map does', () => {
    fc.assert(
      fc.property(fits, fits, fc.boolean(), (first, second, same) => {
        const beside = viewBeside(first.view, first, second, same);
        expect(beside.scale).toBeCloseTo(second.view.scale);
        expect(beside.x / 1000).toBeCloseTo(second.view.x / 1000, 4);
        expect(beside.y / 1000).toBeCloseTo(second.view.y / 1000, 4);
      }),
    );
  });

  it('has the same place in the middle where places mean the same', () => {
    // Both show a map from 0 to 100 round the middle 50, on pictures of different width.
    const first = { view: { scale: 4, x: 0, y: 0 }, middle: { x: 200, y: 200 } };
    const second = { view: { scale: 2, x: 0, y: 0 }, middle: { x: 100, y: 100 } };
    // The first is moved to the place 80, 10, and zoomed twice.
    const view = { scale: 8, x: 200 - 8 * 80, y: 200 - 8 * 10 };
    const beside = viewBeside(view, first, second, true);
    expect((100 - beside.x) / beside.scale).toBeCloseTo(80);
    expect((100 - beside.y) / beside.scale).toBeCloseTo(10);
    expect(beside.scale).toBe(4);
  });

  it('can be turned round: what the second map does, the first does', () => {
    fc.assert(
      fc.property(views, fits, fits, fc.boolean(), (view, first, second, same) => {
        const back = viewBeside(viewBeside(view, first, second, same), second, first, same);
        expect(back.scale).toBeCloseTo(view.scale);
        // Far out, places are large numbers.
        const far = 1e6 * Math.max(1, second.view.scale / first.view.scale, first.view.scale);
        expect(back.x / far).toBeCloseTo(view.x / far, 4);
        expect(back.y / far).toBeCloseTo(view.y / far, 4);
      }),
    );
  });
});

it('leaves margins out of the middle', () => {
  const margin = { left: 200, right: 0, top: 50, bottom: 50 };
  expect(middleOfFree({ width: 600, height: 300 }, margin)).toEqual({ x: 400, y: 150 });
});
