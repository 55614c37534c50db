import { defaultMap } from '@pebble/contract';
import { freeTitle } from './plate-titles';

describe('the title of a new plate', () => {
  const strong = { ...defaultMap, show: { ...defaultMap.show, atLeast: 2 } };

  it('is the network and the part that is shown', () => {
    expect(freeTitle('Who answers whom', defaultMap, [])).toBe('Who answers whom');
    expect(freeTitle('Who answers whom', strong, [])).toBe('Who answers whom, by ties of weight 2 or more');
  });

  it('is one that no other plate has', () => {
    const taken = ['A', 'A (2)'].map((title) => ({ title }));
    expect(freeTitle('A', defaultMap, taken)).toBe('A (3)');
  });

  it('is never too long to be kept, nor cut within a sign', () => {
    const long = '🦉'.repeat(200);
    const first = freeTitle(long, defaultMap, []);
    const second = freeTitle(long, defaultMap, [{ title: first }]);
    for (const title of [first, second]) {
      expect(title.length).toBeLessThanOrEqual(120);
      expect(title).toMatch(/^(🦉)+…( \(2\))?$/u);
    }
    expect(second).not.toBe(first);
  });
});
