import fc from 'fast-check';
import { countTiesByDay, messagesByDay, messagesWithin } from './dailyTieCounts';
import { weighedWithin } from './weighedWithin';

const day = (n: number): number => n * 86_400_000;
const HOUR = 3_600_000;

describe('messages of ties, day by day', () => {
  // Tie 0 twice on day 1 and once on day 3, tie 1 on day 2, and one message without a date.
  const dailyTieCounts = countTiesByDay(
    [0, 1, 0, 0, 1],
    [day(1), day(2) + HOUR, day(3), day(1) + 5 * HOUR, NaN],
  );

  it('are counted by day, tie after tie', () => {
    expect([...dailyTieCounts.edge]).toEqual([0, 0, 1]);
    expect([...dailyTieCounts.day]).toEqual([day(1), day(3), day(2)]);
    expect([...dailyTieCounts.messages]).toEqual([2, 1, 1]);
  });

  it('are summed over a period whose end is outside', () => {
    expect([...messagesWithin(dailyTieCounts, 3, { from: day(1), until: day(3) })]).toEqual([2, 1, 0]);
    expect([...messagesWithin(dailyTieCounts, 3, { from: day(2), until: null })]).toEqual([1, 1, 0]);
  });

  it('give the messages of every day, days without any included', () => {
    const { first, messages } = messagesByDay(dailyTieCounts);
    expect(first).toBe(day(1));
    expect([...messages]).toEqual([2, 1, 1]);
    expect(messagesByDay(countTiesByDay([], [])).messages).toHaveLength(0);
  });

  it('lose no message: periods side by side add up to the whole', () => {
    const message = fc.tuple(fc.nat(5), fc.integer({ min: 0, max: day(20) }));
    fc.assert(
      fc.property(fc.array(message), fc.integer({ min: 0, max: 20 }), (all, cut) => {
        const counted = countTiesByDay(
          all.map(([edge]) => edge),
          all.map(([, time]) => time),
        );
        const before = messagesWithin(counted, 6, { from: null, until: day(cut) });
        const after = messagesWithin(counted, 6, { from: day(cut), until: null });
        for (let e = 0; e < 6; e++)
          expect(before[e] + after[e]).toBe(all.filter(([edge]) => edge === e).length);
        expect(messagesByDay(counted).messages.reduce((a, b) => a + b, 0)).toBe(all.length);
      }),
    );
  });
});

describe('a network in a period', () => {
  const network = (weight: number[]) => ({
    nodeCount: 3,
    nodes: { handle: ['a', 'b', 'c'] },
    edges: {
      source: Uint32Array.of(0, 1),
      target: Uint32Array.of(1, 2),
      weight: Float64Array.from(weight),
    },
    dailyTieCounts: countTiesByDay([0, 0, 1], [day(1), day(3), day(2)]),
  });
  const period = { from: day(2), until: day(4) };

  it('has weights by its messages in the period', () => {
    expect([...weighedWithin(network([2, 1]), period).edges['weight']]).toEqual([1, 1]);
  });

  it('keeps weights that are no numbers of messages, and those of the whole time', () => {
    const shares = network([0.5, 0.1]);
    expect(weighedWithin(shares, period)).toBe(shares);
    expect(weighedWithin(shares, null)).toBe(shares);
  });
});
