import fc from 'fast-check';
import { leadingOverTime, riseAndFall } from './riseAndFall';
import { beyondChance, byChance, isEnough, ranksOf, timesAsMuch, trendOf } from './trend';

describe('trendOf', () => {
  it('has the published value', () => {
    // Agresti, Categorical Data Analysis, on drinking and malformation: z squared is 6.57 with these scores. From memory.
    const counts = [48, 38, 5, 1, 1];
    const totals = [17_114, 14_502, 793, 127, 38];
    expect(trendOf({ counts, totals }, [0, 0.5, 1.5, 4, 7]) ** 2).toBeCloseTo(6.57, 2);
  });

  it('is chi-squared of the fourfold table where there are two slices', () => {
    fc.assert(
      fc.property(fc.nat(50), fc.nat(50), fc.integer({ min: 60, max: 90 }), (a, b, n) => {
        fc.pre(a + b > 0);
        const m = 80;
        const [c, d] = [n - a, m - b];
        const all = n + m;
        const chi = (all * (a * d - b * c) ** 2) / (n * m * (a + b) * (c + d));
        expect(trendOf({ counts: [a, b], totals: [n, m] }) ** 2).toBeCloseTo(chi, 6);
      }),
    );
  });

  it('is 0 for an even share, and turns its sign with time', () => {
    expect(trendOf({ counts: [5, 10, 20], totals: [50, 100, 200] })).toBeCloseTo(0, 12);
    const [up, totals] = [
      [1, 5, 9],
      [30, 30, 30],
    ];
    expect(trendOf({ counts: up, totals })).toBeCloseTo(-trendOf({ counts: [9, 5, 1], totals }), 12);
  });

  it('says nothing of all and of nothing', () => {
    expect(trendOf({ counts: [0, 0], totals: [5, 5] })).toBeNaN();
    expect(trendOf({ counts: [5, 5], totals: [5, 5] })).toBeNaN();
  });
});

// Handbook values of the normal distribution.
it.each([
  [0, 1],
  [1, 0.317_310_5],
  [1.959_964, 0.05],
  [3.290_527, 0.001],
  [6, 1.973_175e-9],
])('byChance(%d) is %d', (z, p) => {
  expect(byChance(z) / p).toBeCloseTo(1, 5);
  expect(byChance(-z)).toBe(byChance(z));
});

it('tells the findings of the published example', () => {
  // Benjamini & Hochberg 1995, the fifteen chances of their example: four are told at a rate of 0.05.
  const chances = [
    0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.324, 0.4262, 0.5719, 0.6528,
    0.759, 1,
  ];
  expect(beyondChance(chances, 0.05).filter((is) => is)).toHaveLength(4);
  expect(beyondChance([NaN, 0.01], 0.05)).toEqual([false, true]);
});

it('asks for enough: ten in all, and five expected in either half', () => {
  expect(isEnough({ counts: [0, 9], totals: [100, 100] })).toBe(false);
  expect(isEnough({ counts: [0, 10], totals: [100, 100] })).toBe(true);
  expect(isEnough({ counts: [0, 10], totals: [90, 110] })).toBe(false);
  // A short slice at the end of a series keeps nothing from being tested.
  expect(isEnough({ counts: [0, 5, 5, 20], totals: [3, 100, 100, 100] })).toBe(true);
});

it('gives equal ones one rank, and none to what is not there', () => {
  expect(ranksOf([5, 9, 5, 0, 1])).toEqual([2, 1, 2, null, 4]);
});

it('leaves the slice in the middle to neither half', () => {
  expect(timesAsMuch({ counts: [1, 50, 3], totals: [10, 60, 10] })).toBeCloseTo(3, 12);
  expect(timesAsMuch({ counts: [0, 3], totals: [10, 10] })).toBe(Infinity);
});

describe('what rises and falls', () => {
  const totals = [100, 100, 100, 100];
  const of = (label: string, counts: number[], authors = 9) => ({ label, counts, authors });
  const things = [
    of('#up', [2, 8, 20, 40]),
    of('#down', [40, 20, 8, 2]),
    of('#even', [10, 11, 9, 10]),
    of('#loud', [0, 5, 20, 40], 1),
    of('#rare', [0, 0, 0, 6]),
  ];

  it('tells the clear ones, and how many it did not test', () => {
    const found = riseAndFall(things, totals, { leastAuthors: 3, most: 10 });
    expect(found.rising.map(({ label }) => label)).toEqual(['#up']);
    expect(found.falling.map(({ label }) => label)).toEqual(['#down']);
    expect(found).toMatchObject({ tested: 3, clear: 2, tooFew: 2 });
    expect(found.rising[0].times).toBeCloseTo(6, 12);
  });

  it('calls nothing a trend that only wavers by chance', () => {
    // A thousand things that stand in a tenth of the messages of each slice, give or take two or three by a fixed pattern.
    const even = Array.from({ length: 1000 }, (_, i) =>
      of(`#${i}`, [10 + (i % 3), 10 + (i % 4), 10 - (i % 3), 10]),
    );
    expect(riseAndFall(even, totals, { leastAuthors: 3, most: 10 }).clear).toBe(0);
  });

  it('leads by ranks: who is among the first of any slice', () => {
    const led = leadingOverTime(things, 4, 2);
    expect(led.map(({ label, ranks }) => [label, ranks])).toEqual([
      ['#down', [1, 1, 4, 5]],
      ['#up', [3, 3, 1, 1]],
      ['#loud', [null, 4, 1, 1]],
      ['#even', [2, 2, 3, 3]],
    ]);
  });
});
