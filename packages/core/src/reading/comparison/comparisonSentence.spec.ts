import { PortraitThing, type Comparison } from '@pebble/contract';
import { comparisonSentence } from './comparisonSentence';

const side = (messages: number, authors: number) => ({ messages, authors, first: null, last: null });
const term = (label: string) => ({ label, messages: 5, elsewhere: 1, authors: 4, score: 20, times: 5 });
const things = (change: Partial<Comparison['things']> = {}): Comparison['things'] => ({
  ...(Object.fromEntries(
    PortraitThing.options.map((thing) => [thing, { a: [], b: [], both: [] }]),
  ) as unknown as Comparison['things']),
  ...change,
});

describe('a comparison in one sentence', () => {
  it('tells sizes, what both share, and what is typical of each', () => {
    const hashtag = { a: [term('#moths'), term('#bats')], b: [term('#stars')], both: [] };
    const told = { a: side(310, 40), b: side(1200, 90), both: { messages: 1, authors: 10 } };
    expect(comparisonSentence(told, things({ hashtag }))).toBe(
      'A: 310 messages by 40 accounts; B: 1,200 messages by 90 accounts; 10 accounts wrote in both (25 % of the smaller); ' +
        '1 of the messages is in both. Typical of A: #moths and #bats. Typical of B: #stars.',
    );
  });

  it('says where there is nothing to compare', () => {
    const none = { a: side(3, 2), b: side(0, 0), both: { messages: 0, authors: 0 } };
    expect(comparisonSentence(none, things())).toContain('B has no messages');
    const same = { a: side(3, 2), b: side(3, 2), both: { messages: 3, authors: 2 } };
    expect(comparisonSentence(same, things())).toBe('A and B are the same 3 messages.');
    const apart = { a: side(3, 2), b: side(4, 2), both: { messages: 0, authors: 0 } };
    expect(comparisonSentence(apart, things())).toContain('nobody wrote in both.');
  });
});
