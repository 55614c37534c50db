import fc from 'fast-check';
import { spreadCurve } from './spreadCurve';
import { spreadSentence } from './spreadSentence';
import { spreadTrees } from './spreadTrees';

const star = (n: number): number[] => Array.from({ length: n }, (_, i) => (i === 0 ? -1 : 0));
const chain = (n: number): number[] => Array.from({ length: n }, (_, i) => i - 1);

describe('trees of who had it from whom', () => {
  // Closed forms of the mean distance (Goel et al. 2016): a star is near 2 however large it is, a chain grows with its length.
  it.each([2, 3, 10, 1000])('has the closed form of a star of %d', (n) => {
    const [tree] = spreadTrees(star(n)).trees;
    expect(tree.virality).toBeCloseTo((2 * (n - 1)) / n, 10);
    expect(tree).toMatchObject({ root: 0, size: n, depth: 1, breadth: Math.max(1, n - 1) });
  });

  it.each([2, 3, 10, 1000])('has the closed form of a chain of %d', (n) => {
    const [tree] = spreadTrees(chain(n)).trees;
    expect(tree.virality).toBeCloseTo((n + 1) / 3, 10);
    expect(tree).toMatchObject({ size: n, depth: n - 1, breadth: 1 });
  });

  it('is the mean distance of all pairs, found one by one', () => {
    const trees = fc
      .integer({ min: 2, max: 25 })
      .chain((n) =>
        fc.tuple(...Array.from({ length: n }, (_, i) => fc.integer({ min: i === 0 ? -1 : 0, max: i - 1 }))),
      );
    fc.assert(
      fc.property(trees, (from) => {
        const up = (v: number): number[] => (v < 0 ? [] : [v, ...up(from[v])]);
        const distance = (a: number, b: number): number => {
          const [one, other] = [up(a), up(b)];
          const meeting = one.find((v) => other.includes(v))!;
          return one.indexOf(meeting) + other.indexOf(meeting);
        };
        let sum = 0;
        for (let a = 0; a < from.length; a++) for (let b = 0; b < from.length; b++) sum += distance(a, b);
        const [tree] = spreadTrees(from).trees;
        expect(tree.virality).toBeCloseTo(sum / (from.length * (from.length - 1)), 9);
      }),
    );
  });

  it('keeps several trees apart, the largest first', () => {
    const { trees, depth, root } = spreadTrees([-1, -1, 1, 1, 3, -1]);
    expect(trees.map(({ root: own, size, depth: steps, breadth }) => [own, size, steps, breadth])).toEqual([
      [1, 4, 2, 2],
      [0, 1, 0, 1],
      [5, 1, 0, 1],
    ]);
    expect([...depth]).toEqual([0, 0, 1, 1, 2, 0]);
    expect([...root]).toEqual([0, 1, 1, 1, 1, 5]);
    expect(spreadTrees([]).trees).toEqual([]);
  });

  it('refuses what comes from a later one', () => {
    expect(() => spreadTrees([-1, 1])).toThrow(RangeError);
  });
});

describe('the curve', () => {
  const HOUR = 3_600_000;
  it('goes by hours for days, and by days for months; every message once', () => {
    const short = spreadCurve([HOUR, HOUR + 1, 5 * HOUR], [HOUR, 5 * HOUR]);
    expect(short).toEqual({ width: HOUR, start: HOUR, messages: [2, 0, 0, 0, 1], accounts: [1, 0, 0, 0, 1] });
    const long = spreadCurve([0, 40 * 24 * HOUR], [0]);
    expect(long.width).toBe(24 * HOUR);
    expect(long.messages).toHaveLength(41);
    const years = spreadCurve([0, 30 * 365 * 24 * HOUR], [0]);
    expect(years.messages.length).toBeLessThanOrEqual(1500);
    expect(spreadCurve([], []).messages).toEqual([]);
  });
});

it('says what is told, what is likely, and what is not known', () => {
  const told = {
    name: '#moths',
    messages: 40,
    accounts: 10,
    first: { label: 'ann', time: Date.UTC(2031, 4, 1, 9, 30) },
    told: 6,
    likely: 2,
    largest: { root: 0, size: 7, depth: 2, breadth: 4, virality: 2.2 },
    undated: 0,
  };
  expect(spreadSentence(told)).toBe(
    '#moths: 40 messages by 10 accounts, first by ann on 1 May 2031 at 09:30. From whom they had it: of 6 the messages tell it, of 2 more ties make it likely, of 2 nothing is known. ' +
      'The largest tree has 7 accounts, is 2 steps deep and 4 broad, with a structural virality of 2.20.',
  );
  expect(spreadSentence({ ...told, first: null, undated: 3 })).toContain('none with a date');
});
