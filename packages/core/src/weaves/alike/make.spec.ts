import fc from 'fast-check';
import { AlikeWeave } from '@pebble/contract';
import { weaveAlike } from './make';
import { messagesBehind, messagesOfTie } from '../common/evidence';
import type { Occurrences } from '../common/occurrences';

/** Sets of words, one for each message; authors take turns. */
function occurrences(sets: readonly (readonly number[])[], authors = sets.length): Occurrences {
  const rows = sets.flatMap((words, message) => words.map((word) => ({ message, word })));
  return {
    count: rows.length,
    message: rows.map((row) => row.message),
    author: rows.map((row) => row.message % authors),
    thing: rows.map((row) => row.word),
    time: rows.map((row) => row.message * 86_400_000),
  };
}
const recipe = (part: object): AlikeWeave => AlikeWeave.parse({ what: 'alike', ...part });

describe('weaveAlike', () => {
  const four = occurrences([
    [1, 2, 3, 4, 5],
    [1, 2, 3, 4, 6],
    [1, 2, 3, 4, 5],
    [1, 7, 8, 9, 10],
  ]);

  it('ties messages by the share of words that both have (Jaccard)', () => {
    const woven = weaveAlike(four, recipe({ likeness: 0.6, atLeast: 2 }));
    expect([...woven.id]).toEqual([0, 1, 2]);
    expect([...woven.source].map((s, e) => [s, woven.target[e], woven.weight[e]])).toEqual([
      [0, 1, 4 / 6],
      [0, 2, 1],
      [1, 2, 4 / 6],
    ]);
    expect([...woven.columns['days']]).toEqual([2, 2, 2]);
    expect(messagesBehind(woven)).toBe(3);
    expect(messagesOfTie(woven.evidence!(), 0, 2)).toEqual([0, 2]);
  });

  it('ties by the number of shared words alone, where no share is asked for', () => {
    const woven = weaveAlike(four, recipe({ likeness: 0, atLeast: 5 }));
    expect(
      [...woven.source].map((s, e) => [woven.id[s], woven.id[woven.target[e]], woven.weight[e]]),
    ).toEqual([[0, 2, 5]]);
  });

  it('takes all words of an account together, and shows the messages with words of both', () => {
    const talk = occurrences(
      [
        [1, 2],
        [1, 9],
        [3, 4],
        [2, 3],
      ],
      2,
    );
    const woven = weaveAlike(talk, recipe({ nodes: 'account', likeness: 0.2, atLeast: 2 }));
    // 1 2 3 4 and 1 9 2 3: three of five.
    expect([woven.weight[0], woven.columns['shared'][0], woven.uses[0]]).toEqual([3 / 5, 3, 2]);
    expect(messagesOfTie(woven.evidence!(), 0, 1)).toEqual([0, 1, 2, 3]);
    // The messages of both, a day apart each.
    expect(woven.columns['days'][0]).toBe(4);
    expect(woven.columns['first'][0]).toBe(Math.min(...Array.from(talk.time)));
    expect(woven.columns['last'][0]).toBe(Math.max(...Array.from(talk.time)));
  });

  it('finds every pair that going through all pairs finds', () => {
    const set = fc.uniqueArray(fc.nat(14), { minLength: 1, maxLength: 9 });
    const asked = fc.record({
      likeness: fc.double({ min: 0, max: 1, noNaN: true }),
      atLeast: fc.integer({ min: 1, max: 5 }),
    });
    fc.assert(
      fc.property(fc.array(set, { minLength: 2, maxLength: 14 }), asked, (sets, { likeness, atLeast }) => {
        const expected: string[] = [];
        sets.forEach((a, i) =>
          sets.slice(i + 1).forEach((b, j) => {
            const shared = a.filter((word) => b.includes(word)).length;
            const share = shared / (a.length + b.length - shared);
            if (shared >= atLeast && share >= likeness - 1e-12) expected.push(`${i} ${i + 1 + j} ${shared}`);
          }),
        );
        const { id, source, target, columns } = weaveAlike(occurrences(sets), recipe({ likeness, atLeast }));
        const found = [...source].map((s, e) => `${id[s]} ${id[target[e]]} ${columns['shared'][e]}`);
        expect(found).toEqual(expected);
      }),
    );
  });
});
