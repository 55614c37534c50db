import { SharedWeave, TogetherWeave, TwoModeWeave } from '@pebble/contract';
import { messagesBehind, messagesOfNode, messagesOfTie, tiesOfMessage } from './evidence';
import type { ThreadOccurrences } from './occurrences';
import { weaveSentence } from '../words';
import { weaveShared } from '../shared/make';
import { weaveTogether } from '../together/make';
import { weaveTwoMode } from '../twoMode/make';

type Row = readonly [message: number, author: number, thing: number, time: number];
const DAY = 86_400_000;

function occurrences(rows: readonly Row[], thread?: readonly number[]): ThreadOccurrences {
  const column = (i: number): number[] => rows.map((row) => row[i]);
  return {
    count: rows.length,
    message: column(0),
    author: column(1),
    thing: column(2),
    time: column(3),
    thread,
  };
}
/** Messages 1 to 5 by accounts 7 and 8, with the things 0 to 3. */
const rows: readonly Row[] = [
  [1, 7, 0, DAY],
  [1, 7, 1, DAY],
  [2, 7, 1, DAY + 5],
  [2, 7, 2, DAY + 5],
  [3, 8, 0, 2 * DAY],
  [3, 8, 1, 2 * DAY],
  [3, 8, 1, 2 * DAY],
  [4, 8, 3, 3 * DAY],
];
const none = (): boolean => false;
const ties = ({ source, target, weight, id }: ReturnType<typeof weaveTogether>): string[] =>
  [...source].map((a, e) => `${id[a]} ${id[target[e]]} ${weight[e]}`);
const together = (change: object = {}) =>
  TogetherWeave.parse({ what: 'together', things: 'hashtag', ...change });

describe('weaveTogether (common practice)', () => {
  it('ties things that stand in one message, each message once', () => {
    const woven = weaveTogether(occurrences(rows), together(), none);
    expect(ties(woven)).toEqual(['0 1 2', '1 2 1']);
    expect([...woven.uses]).toEqual([2, 3, 1]);
    expect(woven.columns['days'][0]).toBe(2);
    expect(woven.directed).toBe(false);
  });

  it('ties by author, by author and day, and by thread', () => {
    const by = (unit: string, thread?: number[]) =>
      ties(weaveTogether(occurrences(rows, thread), together({ unit }), none));
    expect(by('author')).toEqual(['0 1 2', '0 2 1', '0 3 1', '1 2 1', '1 3 1']);
    expect(by('author-day')).toEqual(['0 1 2', '0 2 1', '1 2 1']);
    expect(
      by(
        'thread',
        rows.map(() => 1),
      ),
    ).toHaveLength(6);
  });

  it('counts all authors of what stands in a thread, also as the threshold of scaled weights', () => {
    // Thread 1: thing 0 by accounts 7, 8 and 9, thing 1 by 7; thread 2: both by 7 once more.
    const talk: Row[] = [
      [1, 7, 0, DAY],
      [2, 8, 0, DAY],
      [3, 9, 0, DAY],
      [4, 7, 1, DAY],
      [5, 7, 0, DAY],
      [5, 7, 1, DAY],
    ];
    const threads = [1, 1, 1, 1, 2, 2];
    const woven = (change: object) =>
      ties(
        weaveTogether(
          occurrences(talk, threads),
          together({ unit: 'thread', weight: 'authors', ...change }),
          none,
        ),
      );
    expect(woven({})).toEqual(['0 1 3']);
    expect(woven({ scale: 'jaccard', atLeast: 3 })).toEqual(['0 1 1']);
    expect(woven({ scale: 'jaccard', atLeast: 4 })).toEqual([]);
    const by = weaveSentence(together({ unit: 'thread', weight: 'authors' }));
    expect(by).toContain('the weight is the number of different authors');
    expect(weaveSentence(together({ weight: 'authors', scale: 'jaccard', atLeast: 2 }))).toContain(
      'by at least 2 authors',
    );
  });

  it('counts authors instead of messages', () => {
    const twice: Row[] = [...rows, [5, 8, 0, 4 * DAY], [5, 8, 1, 4 * DAY]];
    expect(ties(weaveTogether(occurrences(twice), together(), none))[0]).toBe('0 1 3');
    expect(ties(weaveTogether(occurrences(twice), together({ weight: 'authors' }), none))[0]).toBe('0 1 2');
  });

  it('leaves out named, rare and crowded, and says so', () => {
    const without = weaveTogether(occurrences(rows), together({ isolates: true }), (thing) => thing === 1);
    expect(ties(without)).toEqual([]);
    const rare = weaveTogether(occurrences(rows), together({ usedAtLeast: 2 }), none);
    expect(ties(rare)).toEqual(['0 1 2']);
    expect(rare.notes).toEqual(['2 of 4 were kept, those in most messages.']);
    const most = weaveTogether(occurrences(rows), together({ mostUsed: 2 }), none);
    expect([...most.id]).toEqual([0, 1]);
    const crowd = Array.from({ length: 12 }, (_, i): Row => [1, 7, i, 0]);
    const spam = weaveTogether(occurrences(crowd), together({ mostInOne: 10 }), none);
    expect([ties(spam), spam.notes[0]]).toEqual([[], '1 message with more than 10 was left out.']);
  });

  it('keeps the messages behind every node and tie', () => {
    const woven = weaveTogether(occurrences(rows), together({ unit: 'author' }), none);
    const evidence = woven.evidence!();
    expect(messagesOfNode(evidence, 1)).toEqual([1, 2, 3]);
    expect(messagesOfTie(evidence, 0, 1)).toEqual([1, 2, 3]);
    // Account 7 alone uses both 0 and 2.
    expect(messagesOfTie(evidence, 0, 2)).toEqual([1, 2]);
    const made = tiesOfMessage(evidence, 4, woven.source, woven.target);
    expect(made.map(({ source, target }) => [source, target])).toEqual([
      [0, 3],
      [1, 3],
    ]);
  });
});

describe('weaveShared', () => {
  it('ties accounts by what they share, with what each used as evidence', () => {
    const woven = weaveShared(
      occurrences(rows),
      SharedWeave.parse({ what: 'shared', things: 'hashtag' }),
      none,
    );
    expect(ties(woven)).toEqual(['7 8 2']);
    expect([...woven.uses]).toEqual([2, 2]);
    expect(messagesOfTie(woven.evidence!(), 0, 1)).toEqual([1, 2, 3]);
    const jaccard = SharedWeave.parse({ what: 'shared', things: 'hashtag', scale: 'jaccard' });
    expect(weaveShared(occurrences(rows), jaccard, none).weight[0]).toBe(0.5);
  });
});

describe('weaveTwoMode', () => {
  it('ties accounts to things by messages', () => {
    const woven = weaveTwoMode(
      occurrences(rows),
      TwoModeWeave.parse({ what: 'two-mode', things: 'hashtag' }),
      none,
    );
    expect(ties(woven)).toEqual(['7 0 1', '7 1 2', '7 2 1', '8 0 1', '8 1 1', '8 3 1']);
    expect([...woven.mode]).toEqual([0, 0, 1, 1, 1, 1]);
    expect([...woven.uses]).toEqual([2, 2, 2, 3, 1, 1]);
    expect(messagesOfTie(woven.evidence!(), 0, 3)).toEqual([1, 2]);
    expect(messagesBehind(woven)).toBe(4);
  });
});
