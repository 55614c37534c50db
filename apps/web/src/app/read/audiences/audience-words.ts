import type { AudienceSort } from '@pebble/contract';

/** What members have in common, in words. */
interface AudienceWords {
  readonly title: string;
  /** "follows", "follow", before the name of a set: of one member, of many. */
  readonly does: readonly [one: string, many: string];
  /** What members are, one and many. */
  readonly members: readonly [one: string, many: string];
  readonly sets: readonly [one: string, many: string];
}

const ACCOUNT = ['account', 'accounts'] as const;

export const AUDIENCE_WORDS: Readonly<Record<AudienceSort, AudienceWords>> = {
  followers: {
    title: 'followers of accounts',
    does: ['follows', 'follow'],
    members: ['follower', 'followers'],
    sets: ['list', 'lists'],
  },
  channel: {
    title: 'commenters of channels',
    does: ['comments on', 'comment on'],
    members: ACCOUNT,
    sets: ['channel', 'channels'],
  },
  item: {
    title: 'commenters of items',
    does: ['comments on', 'comment on'],
    members: ACCOUNT,
    sets: ['item', 'items'],
  },
  hashtag: {
    title: 'users of hashtags',
    does: ['uses', 'use'],
    members: ACCOUNT,
    sets: ['hashtag', 'hashtags'],
  },
  network: {
    title: 'nodes of a two-mode network',
    does: ['is tied to', 'are tied to'],
    members: ['node', 'nodes'],
    sets: ['node of the other sort', 'nodes of the other sort'],
  },
};

/** What is asked of a set: members that are in it, that are not, or either. */
export type Wanted = 'in' | 'out' | 'either';

/** "follow a and b, but not c"; null where nothing is asked. */
export function questionWords(
  does: string,
  names: readonly string[],
  wanted: readonly Wanted[],
): string | null {
  const listed = (which: Wanted, word: string): string => {
    const some = names.filter((_, i) => wanted[i] === which).map((name) => `“${name}”`);
    return some.length < 2 ? some.join('') : `${some.slice(0, -1).join(', ')} ${word} ${some.at(-1)}`;
  };
  const [inside, outside] = [listed('in', 'and'), listed('out', 'or')];
  if (inside === '' && outside === '') return null;
  if (inside === '') return `${does} none of ${outside}`;
  return `${does} ${inside}${outside === '' ? '' : `, but not ${outside}`}`;
}
