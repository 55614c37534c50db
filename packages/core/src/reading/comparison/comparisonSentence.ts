import type { Comparison } from '@pebble/contract';
import { counted, formatCount, joinWith } from '../../words/sentence';

/** Terms of each side that are told. */
const TOLD = 3;

/** What two sets have in common and what not, in one sentence made of counts. */
export function comparisonSentence(
  { a, b, both }: Pick<Comparison, 'a' | 'b' | 'both'>,
  things: Comparison['things'],
): string {
  if (a.messages === 0 || b.messages === 0)
    return `${a.messages === 0 ? 'A' : 'B'} has no messages, so there is nothing to compare.`;
  if (both.messages === a.messages && both.messages === b.messages)
    return `A and B are the same ${counted(a.messages, 'message')}.`;
  const side = (name: string, { messages, authors }: Comparison['a']): string =>
    `${name}: ${counted(messages, 'message')} by ${counted(authors, 'account')}`;
  const shared =
    both.authors === 0
      ? 'nobody wrote in both'
      : `${counted(both.authors, 'account')} wrote in both (${Math.round((100 * both.authors) / Math.min(a.authors, b.authors))} % of the smaller)`;
  const overlap =
    both.messages > 0
      ? `; ${formatCount(both.messages)} of the messages ${both.messages === 1 ? 'is' : 'are'} in both`
      : '';
  const typical = (name: string, which: 'a' | 'b'): string => {
    const terms = [...things.hashtag[which], ...things.word[which]].slice(0, TOLD).map(({ label }) => label);
    return terms.length === 0 ? '' : ` Typical of ${name}: ${joinWith('and', terms)}.`;
  };
  return `${side('A', a)}; ${side('B', b)}; ${shared}${overlap}.${typical('A', 'a')}${typical('B', 'b')}`;
}
