import fc from 'fast-check';
import { cumulative, distribution, inClasses, outliers } from './distribution';

const values = Float64Array.of(3, 1, 3, NaN, 0, 100);

describe('distributions', () => {
  it('count the nodes of each value, without those that have none', () => {
    expect(distribution(values, [0, 1, 2, 3, 4])).toEqual([
      [0, 1],
      [1, 1],
      [3, 2],
    ]);
  });

  it('cumulate to the share that has at least so much, from 1 down', () => {
    expect(cumulative(distribution(values, [0, 1, 2, 3, 4]))).toEqual([
      [0, 1],
      [1, 0.75],
      [3, 0.5],
    ]);
    expect(cumulative([])).toEqual([]);
  });

  it('lose nobody in classes', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 5000 }), { minLength: 1 }), (all) => {
        const counts = distribution(all, all.keys());
        const classes = inClasses(counts, 12);
        return (
          classes.reduce((sum, [, nodes]) => sum + nodes, 0) === all.length &&
          classes.length <= Math.max(12, counts.length)
        );
      }),
    );
  });

  it('name those that stand out, and none without a value', () => {
    expect(outliers(values, Float64Array.of(1, 1, 1, 1, 1, 1), values.keys(), 2)[0]).toBe(5);
    expect(outliers(values, values, values.keys(), 9)).not.toContain(3);
  });
});
