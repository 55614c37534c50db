import { leftNote, occurrencesWithin, takenAddresses, takenOccurrences } from './chosen';
import { sketchOf } from './sketch';
import { refuseTooMany, MOST_TIES, tooManyPhrase, TooManyTies } from './woven';

const odd = (message: number): boolean => message % 2 === 1;

describe('messages that are taken', () => {
  it('keep all their rows, and the others are counted', () => {
    const { rows, left } = takenOccurrences(
      {
        count: 4,
        message: [1, 1, 2, 3],
        author: [7, 7, 8, 9],
        thing: [0, 1, 0, 1],
        time: [5, 5, 6, NaN],
        at: [0, 3, 0, 2],
      },
      odd,
    );
    expect([...(rows.message as Float64Array)]).toEqual([1, 1, 3]);
    expect([...(rows.at as Float64Array)]).toEqual([0, 3, 2]);
    expect(rows.thread).toBeUndefined();
    expect(leftNote(left)).toEqual(['1 message was left out by the choice of messages.']);
    expect(leftNote(0)).toEqual([]);
  });

  it('are those of a time, by choice', () => {
    const day = { count: 3, message: [1, 2, 3], author: [7, 7, 7], thing: [0, 0, 0], time: [5, 9, NaN] };
    expect(occurrencesWithin(day, { from: null, until: null })).toBe(day);
    expect([...(occurrencesWithin(day, { from: 5, until: 9 }).message as Float64Array)]).toEqual([1]);
    expect(occurrencesWithin(day, { from: 0, until: null }).count).toBe(2);
  });

  it('keep whom they address', () => {
    const { rows, left } = takenAddresses(
      { count: 3, message: [1, 2, 4], from: [7, 8, 9], to: [8, 9, 7], kinds: [1, 2, 4], time: [1, 2, 3] },
      odd,
    );
    expect([rows.count, rows.from[0], rows.to[0], rows.kinds[0], left]).toEqual([1, 7, 8, 1, 2]);
  });
});

describe('a sketch', () => {
  it('has the sixty strongest ties without those of a node to itself', () => {
    const ties = 100;
    const { labels, ties: drawn } = sketchOf(
      {
        source: Uint32Array.from({ length: ties }, (_, e) => e),
        target: Uint32Array.from({ length: ties }, (_, e) => (e === 99 ? 99 : 100)),
        weight: Float64Array.from({ length: ties }, (_, e) => e),
      },
      (node) => `n${node}`,
    );
    expect(drawn).toHaveLength(60);
    expect(drawn[0]).toEqual({ source: 0, target: 1, weight: 98 });
    expect(labels.slice(0, 3)).toEqual(['n98', 'n100', 'n97']);
    expect(drawn.at(-1)?.weight).toBe(39);
  });
});

describe('too many ties', () => {
  it('are refused with the strength that would fit', () => {
    expect(() => refuseTooMany(new Float64Array(MOST_TIES))).not.toThrow();
    const strengths = new Float64Array(MOST_TIES + 10).fill(2).fill(3, 0, 100);
    try {
      refuseTooMany(strengths);
      throw new Error('was taken');
    } catch (error) {
      expect(error).toBeInstanceOf(TooManyTies);
      expect((error as TooManyTies).wouldFit).toBe(3);
    }
    expect(tooManyPhrase(6_000_000, 3)).toBe(
      'This would give 6,000,000 ties; at most 5,000,000 can be held. With at least 3 for each tie it would fit.',
    );
    expect(tooManyPhrase(5_000_001, null)).toContain('more than 5,000,000 ties');
  });
});
