import { Random } from '../random';
import { makeGraph } from './graph';
import { poisson, resampled } from './resampled';

describe('poisson', () => {
  it.each([0, 0.5, 4, 100])('has %f as its mean and as its variance', (mean) => {
    const chance = new Random(2);
    const drawn = Array.from({ length: 20_000 }, () => poisson(mean, chance));
    const found = drawn.reduce((a, b) => a + b, 0) / drawn.length;
    const variance = drawn.reduce((sum, value) => sum + (value - found) ** 2, 0) / drawn.length;
    expect(Math.abs(found - mean)).toBeLessThanOrEqual(0.02 * mean + 0.001);
    expect(Math.abs(variance - mean)).toBeLessThanOrEqual(0.05 * mean + 0.001);
  });
});

describe('resampled', () => {
  it('keeps nodes and ties, with weights that are the same on average; ties may vanish', () => {
    const graph = makeGraph(4, [0, 1, 2], [1, 2, 3], [1, 4, 40]);
    const sums = [0, 0, 0];
    const chance = new Random(8);
    for (let run = 0; run < 3000; run++) {
      const drawn = resampled(graph, chance);
      expect(drawn.nodeCount).toBe(4);
      drawn.source.forEach((s, e) => (sums[s] += drawn.weight[e] / 3000));
    }
    sums.forEach((sum, e) => expect(Math.abs(sum - graph.weight[e]) / graph.weight[e]).toBeLessThan(0.06));
  });
});
