import fc from 'fast-check';
import { widthBounds, widthClass, widthLabels, WIDTHS } from './tieWidths';

const classes = (weights: readonly number[]): number[] => {
  const bounds = widthBounds(weights);
  return weights.map((one) => widthClass(one, bounds));
};

describe('widths of ties', () => {
  it('are those of small counts where weights are such', () => {
    expect(classes([1, 2, 3, 4, 9, 10, 80])).toEqual([0, 1, 1, 2, 2, 3, 3]);
    expect(widthLabels(widthBounds([1, 1, 5]))).toEqual(['1', '2 to 3', '4 to 9', '10 and more']);
    expect(widthLabels(widthBounds([]))).toHaveLength(WIDTHS.length);
  });

  it('go by factors, in round numbers, from shares below 1 to weights of a milliard', () => {
    const shares = [0.01, 0.02, 0.05, 0.2, 0.9];
    expect(widthLabels(widthBounds(shares))).toEqual(['under 0.03', 'from 0.03', 'from 0.09', 'from 0.3']);
    expect(classes(shares)).toEqual([0, 0, 1, 2, 3]);
    const large = [1, 30, 4000, 500_000, 1e9];
    expect(widthLabels(widthBounds(large))).toEqual([
      'under 200',
      'from 200',
      'from 30,000',
      'from 6,000,000',
    ]);
    expect(classes(large)).toEqual([0, 0, 1, 2, 3]);
  });

  it('part the ties that weigh enough to be shown', () => {
    const weights = Array.from({ length: 100 }, (_, i) => i + 1);
    const bounds = widthBounds(weights, 40);
    expect(widthLabels(bounds)).toEqual(['under 50', 'from 50', 'from 60', 'from 80']);
    expect(new Set(weights.slice(39).map((one) => widthClass(one, bounds))).size).toBe(4);
  });

  it('are not all thin beside one tie that is far stronger', () => {
    const weights = [...Array.from({ length: 400 }, (_, i) => 1 + (i % 8)), 1e6];
    expect(new Set(classes(weights)).size).toBe(4);
  });

  it('rise with the weight, and are one where all weigh the same or nothing', () => {
    const weights = fc.array(fc.double({ min: 1e-6, max: 1e9, noNaN: true }), {
      minLength: 1,
      maxLength: 60,
    });
    fc.assert(
      fc.property(weights, (all) => {
        const rising = [...all].sort((a, b) => a - b);
        const own = classes(rising);
        expect(own).toEqual([...own].sort());
      }),
    );
    expect(new Set(classes([0.4, 0.4, 0.4])).size).toBe(1);
    expect(classes([0, 0])).toEqual([0, 0]);
  });
});
