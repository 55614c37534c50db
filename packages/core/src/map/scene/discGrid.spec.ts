import fc from 'fast-check';
import { DiscGrid } from './discGrid';

const size = { width: 300, height: 200 };
const disc = fc.record({
  x: fc.double({ min: -80, max: 380, noNaN: true }),
  y: fc.double({ min: -80, max: 280, noNaN: true }),
  r: fc.constantFrom(0, 1, 7.5, 40),
});

it('finds the same discs as looking at every one of them', () => {
  fc.assert(
    fc.property(fc.array(disc, { maxLength: 40 }), disc, (list, at) => {
      const discs = { x: list.map((d) => d.x), y: list.map((d) => d.y), radius: list.map((d) => d.r) };
      const box = { left: Math.max(0, at.x), top: Math.max(0, at.y), right: at.x + 60, bottom: at.y + 14 };
      fc.pre(
        box.right >= box.left && box.bottom >= box.top && box.left <= size.width && box.top <= size.height,
      );
      const found: number[] = [];
      new DiscGrid(discs, size).forEachIn(box.left, box.top, box.right, box.bottom, (v) => found.push(v));
      const expected = list.flatMap(({ x, y, r }, v) => {
        const isShown = r > 0 && x >= -r && y >= -r && x <= size.width + r && y <= size.height + r;
        return isShown && x + r >= box.left && x - r <= box.right && y + r >= box.top && y - r <= box.bottom
          ? [v]
          : [];
      });
      expect(found.filter((v) => expected.includes(v)).sort((a, b) => a - b)).toEqual(expected);
      for (const v of found) expect(discs.radius[v]).toBeGreaterThan(0);
    }),
  );
});

it('finds nothing in an empty picture', () => {
  const visit = jest.fn();
  new DiscGrid({ x: [], y: [], radius: [] }, size).forEachIn(0, 0, 300, 200, visit);
  expect(visit).not.toHaveBeenCalled();
});
