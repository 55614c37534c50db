import type { PortraitThing, ThingKind } from '@pebble/contract';
import { tidyOccurrences } from '@pebble/core';
import { emojiOf } from '@pebble/core/files';
import { codesOfMessages } from '../storage/codings';
import { readDecisions } from '../storage/decisions';
import {
  namedBy,
  Names,
  Rows,
  texts,
  type NamedOccurrences,
  type OccurrenceScope,
} from '../storage/occurrenceRows';
import { readOccurrences, rememberedTexts } from '../storage/occurrences';
import type { Store } from '../storage/open';
import { ofSort, tidyAccounts, tidyThings } from '../weaving/tidied';

/** Where things stand after tidying, and what they are called. */
type StandingThings = Pick<NamedOccurrences, 'occurrences' | 'labelOf'>;

/** Things of a sort of which something can be decided. */
const TIDIED = { hashtag: 'hashtag', word: 'word', domain: 'domain', name: 'name' } as const;

/** All messages of a study. */
const ALL: OccurrenceScope = { from: null, until: null, reposts: true };

/** Where things stand in the messages of a study, after what was decided of them and of accounts. */
export async function readPortraitThings(store: Store, thing: PortraitThing): Promise<StandingThings> {
  const read = readThings(store, thing);
  const decisions = await readDecisions(store);
  const sort = thing in TIDIED ? TIDIED[thing as keyof typeof TIDIED] : null;
  const tidy = sort ? tidyThings(read, ofSort(decisions, sort), null) : { now: null, named: read };
  const accounts = tidyAccounts(store, decisions);
  return {
    occurrences: tidyOccurrences(read.occurrences, tidy.now, accounts.now),
    labelOf: tidy.named.labelOf,
  };
}

function readThings(store: Store, thing: PortraitThing): NamedOccurrences {
  switch (thing) {
    case 'emoji':
      return rememberedTexts(store, ALL, thing as ThingKind, readEmoji);
    case 'language':
      return readLanguages(store);
    case 'code':
      return readCodings(store);
    default:
      return readOccurrences(store, ALL, thing);
  }
}

function readEmoji(store: Store, scope: OccurrenceScope): NamedOccurrences {
  const rows = new Rows();
  const names = new Names();
  for (const { message, author, time, text } of texts(store, scope))
    for (const emoji of new Set(emojiOf(text))) rows.add(message, author, names.of(emoji), time);
  return namedBy(rows, names);
}

/** Of messages whose language cannot be told nothing is said. */
function readLanguages({ raw }: Store): NamedOccurrences {
  const rows = new Rows();
  const names = new Names();
  const sql = `select m.id, m.author_id, l.language, m.time from message m
    join message_language l on l.message_id = m.id where l.language <> 'und' order by m.id`;
  for (const [message, author, language, time] of raw.prepare(sql).raw().iterate() as Iterable<
    [number, number, string, number | null]
  >)
    rows.add(message, author, names.of(language), time);
  return namedBy(rows, names);
}

/** Codes that hold for messages; those that nobody coded have none. */
function readCodings(store: Store): NamedOccurrences {
  const rows = new Rows();
  const names = new Names();
  for (const { message, author, time, code } of codesOfMessages(store))
    rows.add(message, author, names.of(code), time);
  return namedBy(rows, names);
}
