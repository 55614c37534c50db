import type { ThingKind } from '@pebble/contract';
import { findSpans, handleKey, hashtagKey, KIND_BIT } from '@pebble/core';
import { domainOf, linkKey, nameKey, placedWords, WordPlaces } from '@pebble/core/files';
import type { Store } from './open';
import {
  accountLabels,
  labels,
  Names,
  Rows,
  texts,
  type NamedOccurrences,
  type OccurrenceScope,
  type TextRow,
} from './occurrenceRows';
import { rememberedTexts } from './occurrences';

/** A thing in a text, by its number, with the place at which it begins. */
type Found = readonly [thing: number, place: number];
/** Finds things of one kind in a text; the places are words. */
type Finder = (row: TextRow, places: WordPlaces) => Iterable<Found>;

/** Where things of a kind stand in the texts of a study, with the word at which each stands. */
export function readNearOccurrences(
  store: Store,
  scope: OccurrenceScope,
  things: ThingKind,
): NamedOccurrences {
  return rememberedTexts(store, scope, things, goThrough);
}

function goThrough(store: Store, scope: OccurrenceScope, things: ThingKind): NamedOccurrences {
  const { find, ...named } = finderOf(store, things);
  const rows = new Rows();
  for (const row of texts(store, scope)) {
    const places = new WordPlaces(row.text);
    for (const [thing, at] of find(row, places)) rows.add(row.message, row.author, thing, row.time, at);
  }
  return { occurrences: rows.occurrences, ...named };
}

type Named = Omit<NamedOccurrences, 'occurrences'> & { readonly find: Finder };

function finderOf(store: Store, things: ThingKind): Named {
  switch (things) {
    case 'hashtag':
      return hashtags();
    case 'mention':
      return mentions(store);
    case 'name':
      return names(store);
    case 'word':
      return words();
    case 'domain':
    case 'link':
      return links(things);
    case 'item':
    case 'channel':
      throw new RangeError('Items and channels stand in no text.');
  }
}

const plain = (text: string): string => text.trim().toLowerCase();

function words(): Named {
  const known = new Names();
  return {
    *find({ text, language }, places) {
      for (const { word, start } of placedWords(text, language)) yield [known.of(word), places.of(start)];
    },
    labelOf: (thing) => known.labels[thing],
    keyOf: (thing) => known.labels[thing],
    typedKey: plain,
  };
}

function hashtags(): Named {
  const known = new Names();
  return {
    *find({ text }, places) {
      for (const { what, key, start } of findSpans(text))
        if (what === 'hashtag') yield [known.of(hashtagKey(key), key), places.of(start)];
    },
    labelOf: (thing) => `#${known.labels[thing]}`,
    keyOf: (thing) => hashtagKey(known.labels[thing]),
    typedKey: (typed) => hashtagKey(typed.replace(/^#/, '')),
  };
}

function links(things: 'domain' | 'link'): Named {
  const known = new Names();
  return {
    *find({ text }, places) {
      for (const { what, key, start } of findSpans(text)) {
        const link = what !== 'link' ? null : things === 'link' ? linkKey(key) : domainOf(key);
        if (link !== null) yield [known.of(link), places.of(start)];
      }
    },
    labelOf: (thing) => known.labels[thing],
    keyOf: (thing) => plain(known.labels[thing]),
    typedKey: (typed) => plain(linkKey(typed)),
  };
}

function mentions(store: Store): Named {
  const label = accountLabels(store);
  const addressed = new Map<number, number[]>();
  const sql = `select message_id, to_id from address where kinds & ${KIND_BIT.mention}`;
  for (const [message, account] of store.raw.prepare(sql).raw().iterate() as Iterable<[number, number]>)
    addressed.set(message, [...(addressed.get(message) ?? []), account]);
  const keyOf = (account: number): string => handleKey(label.get(account) ?? '');
  return {
    *find({ message, text }, places) {
      for (const { what, key, start } of findSpans(text)) {
        if (what !== 'mention') continue;
        // A text often names only the first part of an account that is known as "name@host".
        const typed = handleKey(key);
        const account = addressed
          .get(message)
          ?.find((one) => keyOf(one) === typed || keyOf(one).startsWith(`${typed}@`));
        if (account !== undefined) yield [account, places.of(start)];
      }
    },
    labelOf: (account) => label.get(account) ?? '',
    keyOf,
    typedKey: handleKey,
  };
}

function names(store: Store): Named {
  const label = labels(store, 'select id, label from name');
  const key = labels(store, 'select id, name_key from name');
  const inMessage = store.raw.prepare('select name_id from message_name where message_id = ?').pluck();
  return {
    *find({ message }, places) {
      for (const name of inMessage.all(message) as number[])
        for (const at of places.ofName(key.get(name) ?? '')) yield [name, at];
    },
    labelOf: (name) => label.get(name) ?? '',
    keyOf: (name) => key.get(name) ?? '',
    typedKey: nameKey,
  };
}
