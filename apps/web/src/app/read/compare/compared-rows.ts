import type { Comparison, SetMessagesRequest, Term } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { languageName } from '../../shared/words';
import { THING_WORDS } from '../common/thing-words';

/** Lines of each column, and of a column that is opened wide. */
const FEW = 8;
const MANY = 40;

export type Side = 'a' | 'b';

/** What stands in one of the three columns of a row: its messages in either set, and how they are asked for. */
export interface Line {
  readonly label: string;
  readonly a: number;
  readonly b: number;
  readonly how: string;
  readonly ask: Partial<SetMessagesRequest>;
}

interface Row {
  readonly title: string;
  readonly a: readonly Line[];
  readonly both: readonly Line[];
  readonly b: readonly Line[];
}

/** A comparison as rows: what one set has alone or what is typical of it, what both have. Rows without anything are left out. */
export function comparedRows(found: Comparison, isWide: boolean): Row[] {
  const most = isWide ? MANY : FEW;
  const things = (Object.keys(THING_WORDS) as (keyof typeof THING_WORDS)[]).map((thing) => {
    const { a, b, both } = found.things[thing];
    const nameOf = (label: string): string => (thing === 'language' ? languageName(label) : label);
    const typical =
      (side: Side) =>
      (term: Term): Line => ({
        label: nameOf(term.label),
        a: side === 'a' ? term.messages : term.elsewhere,
        b: side === 'b' ? term.messages : term.elsewhere,
        how: `${counted(term.messages, 'message')} of ${side.toUpperCase()} by ${counted(term.authors, 'account')}, ${formatCount(term.elsewhere)} of the other; log-likelihood ${term.score.toFixed(1)}`,
        ask: { thing, label: term.label },
      });
    return {
      title: THING_WORDS[thing],
      a: a.slice(0, most).map(typical('a')),
      b: b.slice(0, most).map(typical('b')),
      both: both.slice(0, most).map((one) => ({
        ...one,
        label: nameOf(one.label),
        how: 'used most in both',
        ask: { thing, label: one.label },
      })),
    };
  });
  const account = (one: { label: string; a: number; b: number }): Line => ({
    ...one,
    how: 'messages of each',
    ask: { author: one.label },
  });
  return [
    {
      title: 'accounts',
      a: found.accounts.a.slice(0, most).map(account),
      both: found.accounts.both.slice(0, most).map(account),
      b: found.accounts.b.slice(0, most).map(account),
    },
    ...things,
    {
      title: 'kinds',
      a: [],
      both: found.kinds.map(({ kind, a, b }) => ({
        label: kind,
        a,
        b,
        how: 'messages of each',
        ask: { kind },
      })),
      b: [],
    },
  ].filter(({ a, b, both }) => a.length + b.length + both.length > 0);
}
