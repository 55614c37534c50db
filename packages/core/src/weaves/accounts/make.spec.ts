import fc from 'fast-check';
import { messagesBehind } from '../common/evidence';
import { AccountWeave } from '@pebble/contract';
import { KIND_BIT, parentBit, weaveAccounts, whatEmptiesAccounts, type AddressRows } from './make';
import { tidyAddresses } from '../../tidy/apply';
import { finishWeave } from '../common/after';
import { sizeOf } from '../common/size';
import { periodPhrase, verbPhrase } from '../../words/sentence';
import { weaveSentence } from '../words';

type Row = readonly [message: number, from: number, to: number, kinds: number, time: number];

/** Rows as the store holds them: with one row of the author itself for each message. */
function rows(list: readonly Row[]): AddressRows {
  const own = [...new Map(list.map(([m, f, , , t]) => [m, [m, f, f, 0, t] as Row])).values()];
  const merged = new Map<string, Row>();
  for (const [m, f, to, k, t] of [...own, ...list]) {
    const key = `${m} ${to}`;
    merged.set(key, [m, f, to, k | (merged.get(key)?.[3] ?? 0), t]);
  }
  const all = [...merged.values()].sort((a, b) => a[0] - b[0] || a[2] - b[2]);
  const column = (i: number): number[] => all.map((row) => row[i]);
  return {
    count: all.length,
    message: column(0),
    from: column(1),
    to: column(2),
    kinds: column(3),
    time: column(4),
  };
}

const everything = AccountWeave.parse({ what: 'accounts', kinds: ['reply', 'mention', 'repost'] });
const { reply, mention, repost } = KIND_BIT;

describe('weaveAccounts (common practice)', () => {
  const conversation = rows([
    [1, 0, 1, reply | mention, 10],
    [2, 0, 1, mention, 20],
    [2, 0, 2, mention, 20],
    [3, 1, 0, repost, 30],
    [4, 3, 3, 0, 40],
  ]);

  it('counts a message that answers and mentions an account once in the weight, and in both kinds', () => {
    const woven = weaveAccounts(conversation, everything);
    expect([...woven.id]).toEqual([0, 1, 2, 3]);
    expect([...woven.source].map((s, e) => [s, woven.target[e], woven.weight[e]])).toEqual([
      [0, 1, 2],
      [0, 2, 1],
      [1, 0, 1],
    ]);
    expect([...woven.columns['replies']]).toEqual([1, 0, 0]);
    expect([...woven.columns['mentions']]).toEqual([2, 1, 0]);
    expect([woven.columns['first'][0], woven.columns['last'][0]]).toEqual([10, 20]);
    expect(messagesBehind(woven)).toBe(3);
  });

  describe('where directions are dropped', () => {
    // A to B twice and back once, C to D once and back once, A to C once alone.
    const talk = rows([
      [1, 0, 1, mention, 10],
      [2, 0, 1, mention, 20],
      [3, 1, 0, reply, 30],
      [4, 2, 3, mention, 40],
      [5, 3, 2, mention, 50],
      [6, 0, 2, mention, 60],
    ]);
    const woven = (direction: AccountWeave['direction'], atLeast: number) => {
      const made = weaveAccounts(talk, { ...everything, direction, atLeast });
      return {
        ties: Array.from(made.source, (s, e) => [made.id[s], made.id[made.target[e]], made.weight[e]]),
        dropped: made.droppedBelowThreshold,
        notes: made.notes,
      };
    };
    const alone = ['1 tie in one direction alone left out.'];

    it.each([
      [
        'sum',
        2,
        [
          [0, 1, 3],
          [2, 3, 2],
        ],
        1,
        [],
      ],
      ['sum', 3, [[0, 1, 3]], 2, []],
      ['greatest', 2, [[0, 1, 2]], 2, []],
      [
        'least',
        1,
        [
          [1, 0, 1],
          [2, 3, 1],
        ],
        0,
        alone,
      ],
      ['least', 2, [], 2, alone],
      [
        'mutual',
        2,
        [
          [0, 1, 3],
          [2, 3, 2],
        ],
        0,
        alone,
      ],
      ['mutual', 3, [[0, 1, 3]], 1, alone],
    ] as const)(
      'the threshold is asked of both joined: %s, at least %i',
      (direction, atLeast, ties, dropped, notes) => {
        expect(woven(direction, atLeast)).toEqual({ ties, dropped, notes });
      },
    );
  });

  it('leaves mentions of a reposted text out, also when the reposted account itself was left out', () => {
    const passedOn = rows([
      [1, 0, 1, repost, 10],
      [1, 0, 2, mention, 10],
    ]);
    const without = tidyAddresses(passedOn, (account) => (account === 1 ? -1 : account));
    const own = { ...everything, repostMentions: false };
    expect(weaveAccounts(without, own).source).toHaveLength(0);
    expect(weaveAccounts(without, everything).source).toHaveLength(1);
  });

  it('ties the author of a message that addresses nobody to itself, where that is wanted', () => {
    const woven = weaveAccounts(conversation, { ...everything, selfTies: true });
    expect([...woven.source].map((s, e) => [s, woven.target[e]])).toContainEqual([3, 3]);
    expect(messagesBehind(woven)).toBe(4);
  });

  it('drops ties below the threshold and says how many', () => {
    const woven = weaveAccounts(conversation, { ...everything, atLeast: 2, isolates: false });
    expect([...woven.id]).toEqual([0, 1]);
    expect(woven.droppedBelowThreshold).toBe(2);
  });

  it('counts the mentions of a reposted text by choice', () => {
    const passedOn = rows([
      [1, 0, 1, repost, 10],
      [1, 0, 2, mention, 10],
      [2, 0, 2, mention, 20],
    ]);
    const ties = (weave: AccountWeave): number[] => [...weaveAccounts(passedOn, weave).weight];
    expect(ties(everything)).toEqual([1, 2]);
    expect(ties({ ...everything, repostMentions: false })).toEqual([1, 1]);
  });

  it('counts the days of a tie, in whatever order messages come, and those of both directions together', () => {
    const day = 86_400_000;
    const talk = rows([
      [1, 0, 1, reply, 3 * day],
      [2, 0, 1, reply, day],
      [3, 0, 1, reply, 3 * day + 5],
      [4, 1, 0, reply, day + 9],
      [5, 1, 0, reply, 5 * day],
      [6, 1, 0, reply, NaN],
    ]);
    expect([...weaveAccounts(talk, everything).columns['days']]).toEqual([2, 2]);
    const dropped = finishWeave(weaveAccounts(talk, { ...everything, direction: 'sum' }), {
      direction: 'sum',
      backbone: null,
      largestOnly: false,
      isolates: true,
    });
    expect([dropped.weight[0], dropped.columns['days'][0]]).toEqual([6, 3]);
  });

  it('keeps replies, answers to comments and quotes apart, and adds them up in the weight', () => {
    expect((['post', 'reply', 'comment', 'quote', 'repost', 'email'] as const).map(parentBit)).toEqual([
      KIND_BIT.reply,
      KIND_BIT.reply,
      KIND_BIT.comment,
      KIND_BIT.quote,
      KIND_BIT.repost,
      KIND_BIT.reply,
    ]);
    const talk = rows([
      [1, 0, 1, KIND_BIT.comment, 10],
      [2, 0, 1, KIND_BIT.quote | mention, 20],
      [3, 0, 1, reply, 30],
    ]);
    const { weight, columns } = weaveAccounts(talk, {
      ...everything,
      kinds: ['reply', 'comment', 'quote'],
    });
    expect([...weight]).toEqual([3]);
    expect(Object.keys(columns).slice(0, 3)).toEqual(['replies', 'comment replies', 'quotes']);
    expect(['replies', 'comment replies', 'quotes'].map((name) => columns[name][0])).toEqual([1, 1, 1]);
    expect([...weaveAccounts(talk, { ...everything, kinds: ['quote'] }).weight]).toEqual([1]);
  });

  it('keeps to the period and the kinds', () => {
    expect(weaveAccounts(conversation, { ...everything, from: 15, until: 30 }).source).toHaveLength(2);
    expect(weaveAccounts(conversation, { ...everything, kinds: ['repost'] }).source).toHaveLength(1);
  });

  it('has weights that add up to the pairs of message and addressed account', () => {
    const row = fc.tuple(fc.nat(20), fc.nat(6), fc.nat(6), fc.integer({ min: 1, max: 7 }), fc.nat(100));
    fc.assert(
      fc.property(fc.array(row, { maxLength: 60 }), (list) => {
        const authors = new Map<number, number>();
        const clean = list.map(([m, f, t, k, time]): Row => {
          if (!authors.has(m)) authors.set(m, f);
          return [m, authors.get(m)!, t, k, time];
        });
        const pairs = new Set(clean.filter(([, f, t]) => f !== t).map(([m, , t]) => `${m} ${t}`));
        const woven = weaveAccounts(rows(clean), everything);
        expect(woven.weight.reduce((a, b) => a + b, 0)).toBe(pairs.size);
      }),
    );
  });
});

const estimateAccounts = (given: AddressRows, weave: AccountWeave) => {
  const woven = weaveAccounts(given, weave);
  return sizeOf(woven, messagesBehind(woven), whatEmptiesAccounts(given, weave, woven.droppedBelowThreshold));
};

describe('the size of a network of accounts', () => {
  it('counts what the weave would give', () => {
    const size = estimateAccounts(
      rows([
        [1, 0, 1, reply, 1],
        [2, 2, 2, 0, 2],
      ]),
      everything,
    );
    expect(size).toMatchObject({
      nodes: 3,
      edges: 1,
      isolates: 1,
      components: 2,
      largest: 2,
      emptiedBy: null,
      tooLarge: false,
    });
  });

  it('says which part of the sentence empties it', () => {
    const one = rows([[1, 0, 1, reply, 10]]);
    expect(estimateAccounts(rows([]), everything).emptiedBy).toContain('no messages');
    expect(estimateAccounts(one, { ...everything, from: 20 }).emptiedBy).toContain('period');
    expect(estimateAccounts(one, { ...everything, atLeast: 5 }).emptiedBy).toContain('5 messages');
    expect(estimateAccounts(one, { ...everything, kinds: ['repost'] }).emptiedBy).toContain('reposts');
  });
});

describe('sentences', () => {
  it('read as people would say them', () => {
    expect(verbPhrase(['reply', 'mention', 'repost'])).toBe('replies to, mentions or reposts');
    expect(periodPhrase(Date.UTC(2026, 2, 1), Date.UTC(2026, 5, 1))).toBe('1 March to 31 May 2026');
    expect(periodPhrase(Date.UTC(2026, 2, 1), Date.UTC(2026, 2, 2))).toBe('on 1 March 2026');
    expect(weaveSentence({ ...everything, atLeast: 2 })).toBe(
      'Accounts tied when one replies to, mentions or reposts another at least twice, at any time; accounts without a tie are kept.',
    );
  });
});
