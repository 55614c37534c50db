import { AccountWeave } from '@pebble/contract';
import { dayPhrase, formatCount, joinWith, periodPhrase, timesPhrase, verbPhrase } from './sentence';
import { weaveSentence } from '../weaves/words';

const march = Date.UTC(2026, 2, 1);
const may = Date.UTC(2026, 4, 1);
const weave = AccountWeave.parse({ what: 'accounts', kinds: ['reply'], from: march, until: may });

it.each([
  [0, '0'],
  [999, '999'],
  [1000, '1,000'],
  [1234567, '1,234,567'],
])('writes %d as %s', (value, written) => {
  expect(formatCount(value)).toBe(written);
});

it('joins words as people do', () => {
  expect(joinWith('or', [])).toBe('');
  expect(joinWith('or', ['a'])).toBe('a');
  expect(joinWith('and', ['a', 'b', 'c'])).toBe('a, b and c');
});

it('names what accounts do to each other, in emails too', () => {
  expect(verbPhrase(['reply', 'mention', 'repost'])).toBe('replies to, mentions or reposts');
  expect(verbPhrase(['to', 'cc', 'bcc'])).toBe('writes to, sends a copy to or sends a blind copy to');
});

it('counts once, twice, and then in numbers', () => {
  expect([1, 2, 3, 1200].map(timesPhrase)).toEqual(['once', 'twice', '3 times', '1,200 times']);
});

describe('a period', () => {
  it('ends on the day before the midnight at which it ends', () => {
    expect(periodPhrase(march, may)).toBe('1 March to 30 April 2026');
    // Parts of days are told with hours.
    expect(periodPhrase(march + 52_200_000, may)).toBe('1 March 2026, 14:30 to 1 May 2026, 00:00');
    expect(periodPhrase(null, march + 1000)).toBe('until 1 March 2026, 00:00:01');
  });

  it('names both years where they differ', () => {
    expect(periodPhrase(Date.UTC(2025, 11, 31), may)).toBe('31 December 2025 to 30 April 2026');
  });

  it('may be open at either end', () => {
    expect(periodPhrase(march, null)).toBe('from 1 March 2026');
    expect(periodPhrase(null, may)).toBe('until 30 April 2026');
    expect(periodPhrase(null, null)).toBe('at any time');
  });

  it('is told in UTC, whatever the zone of the machine', () => {
    expect(dayPhrase(Date.UTC(2026, 2, 31, 23, 59), true)).toBe('31 March 2026');
    expect(dayPhrase(Date.UTC(2026, 3, 1, 0, 0), false)).toBe('1 April');
  });
});

describe('the sentence of a weave', () => {
  it('says what ties, when, and what becomes of those without a tie', () => {
    expect(weaveSentence(weave)).toBe(
      'Accounts tied when one replies to another, 1 March to 30 April 2026 (UTC); accounts without a tie are kept.',
    );
  });

  it('says more only where more was asked', () => {
    expect(weaveSentence({ ...weave, atLeast: 2, selfTies: true, isolates: false })).toBe(
      'Accounts tied when one replies to another at least twice, 1 March to 30 April 2026 (UTC); ' +
        'a post that addresses nobody is a tie of its author to itself; accounts without a tie are left out.',
    );
  });
});
