import { Weave, type MessageOverview, type Network, type ThingKind, type WeaveKind } from '@pebble/contract';
import { groupColumns } from './group-columns';
import { sortsOf, twoModeNetworks } from './two-mode';

/** A question that a network answers, and the weave that makes it. */
export interface Question {
  readonly what: WeaveKind;
  readonly asks: string;
  readonly about: string;
}

export const QUESTIONS: readonly Question[] = [
  { what: 'accounts', asks: 'Who addresses whom?', about: 'replies, mentions, reposts, emails' },
  { what: 'together', asks: 'What goes together?', about: 'hashtags, words, links, videos' },
  { what: 'shared', asks: 'Who shares what?', about: 'accounts by what they have in common' },
  { what: 'two-mode', asks: 'Who uses what?', about: 'accounts and things, two sorts of nodes' },
  { what: 'follows', asks: 'Who follows whom?', about: 'audiences of the listed accounts' },
  { what: 'in-step', asks: 'Who posts in step?', about: 'the same within seconds' },
  { what: 'alike', asks: 'Whose wording is alike?', about: 'messages or accounts by their words' },
  { what: 'groups', asks: 'How do groups relate?', about: 'groups of a network as nodes' },
  { what: 'projection', asks: 'Who meets through what?', about: 'one sort of nodes of a two-mode network' },
];

/** Why a question cannot be asked of a study yet; null where it can. */
export function whyNot(
  what: WeaveKind,
  overview: MessageOverview,
  networks: readonly Network[],
): string | null {
  if (what === 'follows')
    return overview.follows > 0 ? null : 'There are no follower lists in this study yet.';
  if (what === 'projection')
    return twoModeNetworks(networks).length > 0
      ? null
      : 'There is no two-mode network yet: weave accounts and what they use, or drop a sign-in sheet.';
  if (what === 'groups')
    return networks.some(({ id }) => groupColumns(networks, id).length > 0)
      ? null
      : 'There is no network with groups yet: weave one first.';
  return overview.messages > 0 ? null : 'There are no messages in this study yet.';
}

/** Kinds of things that a study holds. */
export function thingsIn(overview: MessageOverview): ThingKind[] {
  const items: ThingKind[] = overview.items > 0 ? ['item', 'channel'] : [];
  const tags: ThingKind[] = overview.hashtags.length > 0 ? ['hashtag'] : [];
  const mentions: ThingKind[] = overview.addressKinds.includes('mention') ? ['mention'] : [];
  const names: ThingKind[] = overview.names > 0 ? ['name'] : [];
  return [...tags, ...items, ...mentions, ...names, 'domain', 'link', 'word'];
}

/** A hashtag on more than a third of all messages ties everything to everything. */
export function commonTag({ hashtags, messages }: MessageOverview): string | null {
  const [first] = hashtags;
  return first && first.messages > messages / 3 ? first.tag : null;
}

/** The sentence with which a question begins, in this study. */
export function firstWeave(what: WeaveKind, overview: MessageOverview, networks: readonly Network[]): Weave {
  const DAY = 86_400_000;
  const day = (time: number): number => Math.floor(time / DAY) * DAY;
  const period =
    overview.from === null || overview.until === null
      ? { from: null, until: null }
      : { from: day(overview.from), until: day(overview.until) + DAY };
  const [things] = thingsIn(overview);
  const tag = commonTag(overview);
  const without = things === 'hashtag' && tag !== null ? [tag] : [];
  switch (what) {
    case 'accounts':
      return Weave.parse({ what, kinds: overview.addressKinds, ...period });
    case 'together':
      return Weave.parse({ what, things, without, mostUsed: 300, usedAtLeast: 2, ...period });
    case 'shared':
      return Weave.parse({ what, things, without, atLeast: 2, scale: 'newman', ...period });
    case 'two-mode':
      return Weave.parse({ what, things, without, usedAtLeast: 2, ...period });
    case 'follows':
      return Weave.parse({ what });
    case 'in-step':
      return Weave.parse({ what, ...period });
    case 'alike':
      return Weave.parse({ what, ...period });
    case 'projection': {
      const network = twoModeNetworks(networks).at(0)?.id ?? '';
      const [sort] = sortsOf(networks, network);
      return Weave.parse({ what, network, sort });
    }
    case 'groups': {
      // Groups of groups are seldom what one is after.
      const grouped = networks.filter(({ id }) => groupColumns(networks, id).length > 0);
      const network = grouped.find(({ weave }) => weave?.what !== 'groups') ?? grouped.at(0);
      const [column] = groupColumns(networks, network?.id ?? '');
      return Weave.parse({ what, network: network?.id ?? '', column: column?.name ?? '' });
    }
  }
}
