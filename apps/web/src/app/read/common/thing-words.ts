import type { PortraitThing } from '@pebble/contract';

/** What things of a sort are called. */
export const THING_WORDS: Readonly<Record<PortraitThing, string>> = {
  hashtag: 'hashtags',
  word: 'words',
  domain: 'domains',
  link: 'links',
  name: 'names',
  emoji: 'emoji',
  language: 'languages',
  code: 'codes',
};
