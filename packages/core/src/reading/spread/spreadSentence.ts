import { counted, dayPhrase, formatCount } from '../../words/sentence';
import type { SpreadTree } from './spreadTrees';

interface Told {
  /** What spread, as it is called: "#moths", "this text". */
  readonly name: string;
  readonly messages: number;
  readonly accounts: number;
  /** The account that had it first, and when, milliseconds since 1970. */
  readonly first: { readonly label: string; readonly time: number } | null;
  /** Accounts of which messages tell from whom they had it; those of which ties make it likely. */
  readonly told: number;
  readonly likely: number;
  readonly largest: SpreadTree | null;
  readonly undated: number;
}

/** How something spread, in two or three sentences made of counts. */
export function spreadSentence({
  name,
  messages,
  accounts,
  first,
  told,
  likely,
  largest,
  undated,
}: Told): string {
  if (!first || !largest)
    return undated > 0
      ? `${counted(undated, 'message')} of ${name}, none with a date, so that nothing can be said of how it spread.`
      : `No message of ${name}.`;
  const clock = new Date(first.time).toISOString().slice(11, 16);
  const head = `${name}: ${counted(messages, 'message')} by ${counted(accounts, 'account')}, first by ${first.label} on ${dayPhrase(first.time, true)} at ${clock}.`;
  const byTies = likely > 0 ? `, of ${formatCount(likely)} more ties make it likely` : '';
  const unknown = accounts - told - likely;
  const rest = unknown === 1 ? 'of 1 nothing is known' : `of ${formatCount(unknown)} nothing is known`;
  const source = `From whom they had it: of ${formatCount(told)} the messages tell it${byTies}, ${rest}.`;
  const tree =
    largest.size < 2
      ? ''
      : ` The largest tree has ${counted(largest.size, 'account')}, is ${counted(largest.depth, 'step')} deep and ${formatCount(largest.breadth)} broad, with a structural virality of ${largest.virality.toFixed(2)}.`;
  const without = undated > 0 ? ` ${counted(undated, 'message')} without a date are left out.` : '';
  return `${head} ${source}${tree}${without}`;
}
