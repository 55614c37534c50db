import fc from 'fast-check';
import type { TextBox } from '../marks/notes/calloutLine';
import { TakenBoxes } from './takenBoxes';

const box = fc
  .tuple(
    fc.integer({ min: -50, max: 650 }),
    fc.integer({ min: -50, max: 450 }),
    fc.integer({ min: 1, max: 120 }),
    fc.integer({ min: 1, max: 60 }),
  )
  .map(([left, top, width, height]): TextBox => ({ left, top, right: left + width, bottom: top + height }));

describe('boxes that are taken', () => {
  it('are found where they overlap another one, also outside of the picture, and not where they only touch', () => {
    fc.assert(
      fc.property(fc.array(box, { maxLength: 30 }), box, (taken, asked) => {
        const boxes = new TakenBoxes(400);
        for (const one of taken) boxes.add(one);
        const overlaps = taken.some(
          (one) =>
            Math.min(one.right, asked.right) > Math.max(one.left, asked.left) &&
            Math.min(one.bottom, asked.bottom) > Math.max(one.top, asked.top),
        );
        expect(boxes.touch(asked)).toBe(overlaps);
      }),
      { numRuns: 500 },
    );
  });
});
