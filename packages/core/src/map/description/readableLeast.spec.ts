import fc from 'fast-check';
import { readableLeast } from './readableLeast';

describe('readableLeast', () => {
  it('is 0, which is all, for a network that is not dense, whatever its weights', () => {
    expect(readableLeast([5, 4, 3, 2, 1], 4)).toBe(0);
    expect(readableLeast([0.5, 0.25, 0.125], 4)).toBe(0);
  });

  it('leaves about four ties for each node of a dense one', () => {
    // 10 nodes, 200 ties of the weights 1 to 200: the 40 strongest are those above 160.
    const weight = Array.from({ length: 200 }, (_, e) => e + 1);
    expect(readableLeast(weight, 10)).toBe(161);
    // Of weights below 1 the shortest number that parts them so.
    const small = weight.map((one) => one / 1234);
    const least = readableLeast(small, 10);
    expect(least).toBe(0.13);
    expect(small.filter((one) => one >= least)).toHaveLength(40);
  });

  it('is a round number where that costs few ties', () => {
    // 1,000 weights from 0.07 on, which part after the sixth digit alone.
    const weight = Array.from({ length: 1000 }, (_, e) => 0.07 + e / 100_003);
    const least = readableLeast(weight, 10);
    expect(String(least).length).toBeLessThanOrEqual('0.0797'.length);
    const shown = weight.filter((one) => one >= least).length;
    expect(shown).toBeGreaterThanOrEqual(36);
    expect(shown).toBeLessThanOrEqual(40);
    // Ties of weight 0 are no ties to be shown.
    expect(readableLeast([...new Array<number>(190).fill(0), ...new Array<number>(10).fill(2)], 10)).toBe(2);
  });

  it('is that of the strongest ties, where more of them weigh the same than usual', () => {
    const weight = [...new Array<number>(60).fill(1), ...new Array<number>(200).fill(0.5)];
    expect(readableLeast(weight, 10)).toBe(0.6);
    // Too many of them.
    expect(readableLeast([...new Array<number>(101).fill(1), ...weight.slice(60)], 10)).toBe(0);
  });

  it('is 0 where weights do not tell ties apart', () => {
    expect(readableLeast(new Array<number>(500).fill(2), 10)).toBe(0);
  });

  it('never leaves more than that, nor too few', () => {
    const weights = fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 101, maxLength: 300 });
    fc.assert(
      fc.property(weights, (weight) => {
        const least = readableLeast(weight, 10);
        const shown = weight.filter((one) => one >= least).length;
        const same = weight.filter((one) => one === Math.max(...weight)).length;
        expect(least === 0 || (shown <= Math.max(40, same) && shown <= 100 && shown >= 5)).toBe(true);
      }),
    );
  });
});
