import {
  TidySort,
  type SharedWeave,
  type ThingKind,
  type TogetherWeave,
  type TwoModeWeave,
} from '@pebble/contract';
import { counted, formatCount, joinWith } from '../../words/sentence';
import type { NodeSorts, OneAndMany } from '../kind';

/** What one and several things of a kind are called. */
export const THING_WORDS: Readonly<Record<ThingKind, OneAndMany>> = {
  hashtag: ['hashtag', 'hashtags'],
  mention: ['mentioned account', 'mentioned accounts'],
  domain: ['domain', 'domains'],
  link: ['link', 'links'],
  word: ['word', 'words'],
  name: ['name', 'names'],
  item: ['item', 'items'],
  channel: ['channel', 'channels'],
};

/** What an account does with things of a kind. */
export const USES: Readonly<Record<ThingKind, string>> = {
  hashtag: 'use',
  mention: 'mention',
  domain: 'link to',
  link: 'share',
  word: 'use',
  name: 'name',
  item: 'comment on',
  channel: 'comment on',
};

/** Things that are left out by name are told up to so many. */
const NAMED = 8;

/** Which things are taken, and from which messages. */
export function thingConditions({
  things,
  usedAtLeast,
  mostUsed,
  without,
  mostInOne,
  reposts,
}: TogetherWeave | SharedWeave | TwoModeWeave): string[] {
  const [, many] = THING_WORDS[things];
  const further = without.length > NAMED ? ` and ${without.length - NAMED} more` : '';
  return [
    ...(usedAtLeast > 1 ? [`only ${many} in ${formatCount(usedAtLeast)} messages or more`] : []),
    ...(mostUsed === null ? [] : [`only the ${formatCount(mostUsed)} in most messages`]),
    ...(without.length > 0 ? [`without ${joinWith('and', without.slice(0, NAMED))}${further}`] : []),
    `messages with more than ${counted(mostInOne, ...THING_WORDS[things])} are left out`,
    ...(reposts ? [] : ['reposts are left out']),
  ];
}

/** What things are as nodes: mentioned accounts and channels are accounts; links are nothing that is tidied. */
export function sortsOfThings(things: ThingKind): NodeSorts {
  const accounts = things === 'mention' || things === 'channel';
  return { accounts, things: accounts || things === 'link' ? null : things };
}

/** Decisions about accounts change what they use, and those about things what is used. */
export function tidiedWith(things: ThingKind): TidySort[] {
  const sort = TidySort.safeParse(things);
  return sort.success && sort.data !== 'account' ? ['account', sort.data] : ['account'];
}
