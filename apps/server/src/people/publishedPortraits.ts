import type { HeldPortrait, PreparedMap } from '@pebble/core';
import type { Store } from '../storage/open';
import { readPortraitBody, readPortraitHeads } from '../storage/portraits';

/** Terms of each kind that a portrait tells. */
const MOST_TERMS = 12;
const LISTS = [
  ['hashtag', 'Typical hashtags'],
  ['word', 'Typical words'],
  ['domain', 'Typical domains'],
] as const;

/**
 * What the portraits of the groups say that give a map its colours, with people as they are called in what is published; none where there are
 * none.
 * @param before what nodes are called in the study
 */
export async function publishedPortraits(
  store: Store,
  id: string,
  before: readonly string[],
  { description, labels, network: { titles = {} } }: PreparedMap,
): Promise<HeldPortrait[]> {
  const { column } = description.colour;
  const heads = await readPortraitHeads(store, id, column);
  const portraits: HeldPortrait[] = [];
  for (const { group, suggested, sentence } of heads) {
    const body = await readPortraitBody(store, id, column, group);
    // The sentence names who is addressed most.
    const first = body?.addressed[0]?.node;
    portraits.push({
      group,
      title: titles[column]?.[group] ?? suggested,
      sentence:
        first === undefined ? sentence : sentence.replace(` ${before[first]} (`, () => ` ${labels[first]} (`),
      lists: LISTS.map(([thing, heading]) => ({
        heading,
        terms: (body?.things[thing]?.typical ?? []).slice(0, MOST_TERMS).map(({ label }) => label),
      })).filter(({ terms }) => terms.length > 0),
    });
  }
  return portraits;
}
