import type { TidySort } from '@pebble/contract';

/** What one and several things of a sort are called. */
export const SORT_WORDS: Readonly<Record<TidySort, readonly [one: string, many: string]>> = {
  account: ['account', 'accounts'],
  hashtag: ['hashtag', 'hashtags'],
  domain: ['domain', 'domains'],
  word: ['word', 'words'],
  name: ['name', 'names'],
};
