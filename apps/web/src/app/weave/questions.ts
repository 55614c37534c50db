import type { Type } from '@angular/core';
import { Weave, type MessageOverview, type Network, type ThingKind, type WeaveKind } from '@pebble/contract';
import { AccountSentence } from './account-sentence';
import { AlikeSentence } from './alike-sentence';
import { FollowSentence } from './follow-sentence';
import { groupColumns } from './group-columns';
import { GroupSentence } from './group-sentence';
import { ProjectionSentence } from './projection-sentence';
import { StepSentence } from './step-sentence';
import { ThingSentence } from './thing-sentence';
import { sortsOf, twoModeNetworks } from './two-mode';

/** What a study holds, as far as sentences ask for it. */
export interface Held {
  readonly overview: MessageOverview;
  readonly networks: readonly Network[];
}

/** A question that a network answers. */
interface Question {
  readonly what: WeaveKind;
  readonly asks: string;
  readonly about: string;
  /** Why it cannot be asked of a study yet; null where it can. */
  readonly whyNot: (held: Held) => string | null;
  /** What the sentence begins with in a study, beside its kind. */
  readonly first: (held: Held) => object;
  /** The sentence with its controls: a component with the model `weave`. */
  readonly sentence: Type<unknown>;
  /** What the sentence is to know of the study: its other inputs. */
  readonly knows?: (held: Held) => Readonly<Record<string, unknown>>;
}

const DAY = 86_400_000;

/** The days on which there are messages. */
function periodOf({ overview: { from, until } }: Held): { from: number | null; until: number | null } {
  if (from === null || until === null) return { from: null, until: null };
  const day = (time: number): number => Math.floor(time / DAY) * DAY;
  return { from: day(from), until: day(until) + DAY };
}

/** The things that there are, without the one that would tie everything. */
function thingsOf({ overview }: Held): { things: ThingKind; without: string[] } {
  const [things] = thingsIn(overview);
  const tag = commonTag(overview);
  return { things, without: things === 'hashtag' && tag !== null ? [tag] : [] };
}

const ofThings = {
  sentence: ThingSentence,
  knows: ({ overview }: Held) => ({ offered: thingsIn(overview), commonTag: commonTag(overview) }),
};
const networksOf = ({ networks }: Held) => ({ networks });

const needsMessages = ({ overview }: Held): string | null =>
  overview.messages > 0 ? null : 'There are no messages in this study yet.';

export const QUESTIONS: readonly Question[] = [
  {
    what: 'accounts',
    asks: 'Who addresses whom?',
    about: 'replies, mentions, reposts, emails',
    whyNot: (held) =>
      needsMessages(held) ??
      (held.overview.addressKinds.length > 0
        ? null
        : 'No message of this study addresses an account: there are no replies, mentions or reposts.'),
    first: (held) => {
      const { addressKinds } = held.overview;
      return { kinds: addressKinds.length > 0 ? addressKinds : ['mention'], ...periodOf(held) };
    },
    sentence: AccountSentence,
    knows: ({ overview }) => ({ kinds: overview.addressKinds }),
  },
  {
    what: 'together',
    asks: 'What goes together?',
    about: 'hashtags, words, links, videos',
    whyNot: needsMessages,
    first: (held) => ({ ...thingsOf(held), mostUsed: 300, usedAtLeast: 2, ...periodOf(held) }),
    ...ofThings,
  },
  {
    what: 'shared',
    asks: 'Who shares what?',
    about: 'accounts by what they have in common',
    whyNot: needsMessages,
    first: (held) => ({ ...thingsOf(held), atLeast: 2, scale: 'newman', ...periodOf(held) }),
    ...ofThings,
  },
  {
    what: 'two-mode',
    asks: 'Who uses what?',
    about: 'accounts and things, two sorts of nodes',
    whyNot: needsMessages,
    first: (held) => ({ ...thingsOf(held), usedAtLeast: 2, ...periodOf(held) }),
    ...ofThings,
  },
  {
    what: 'follows',
    asks: 'Who follows whom?',
    about: 'audiences of the listed accounts',
    whyNot: ({ overview }) =>
      overview.follows > 0 ? null : 'There are no follower lists in this study yet.',
    first: () => ({}),
    sentence: FollowSentence,
  },
  {
    what: 'in-step',
    asks: 'Who posts in step?',
    about: 'the same within seconds',
    whyNot: needsMessages,
    first: periodOf,
    sentence: StepSentence,
  },
  {
    what: 'alike',
    asks: 'Whose wording is alike?',
    about: 'messages or accounts by their words',
    whyNot: needsMessages,
    first: periodOf,
    sentence: AlikeSentence,
  },
  {
    what: 'groups',
    asks: 'How do groups relate?',
    about: 'groups of a network as nodes',
    whyNot: ({ networks }) =>
      networks.some(({ id }) => groupColumns(networks, id).length > 0)
        ? null
        : 'There is no network with groups yet: weave one first.',
    first: ({ networks }) => {
      // Groups of groups are seldom what one is after.
      const grouped = networks.filter(({ id }) => groupColumns(networks, id).length > 0);
      const network = grouped.find(({ weave }) => weave?.what !== 'groups') ?? grouped.at(0);
      const [column] = groupColumns(networks, network?.id ?? '');
      return { network: network?.id ?? '', column: column?.name ?? '' };
    },
    sentence: GroupSentence,
    knows: networksOf,
  },
  {
    what: 'projection',
    asks: 'Who meets through what?',
    about: 'one sort of nodes of a two-mode network',
    whyNot: ({ networks }) =>
      twoModeNetworks(networks).length > 0
        ? null
        : 'There is no two-mode network yet: weave accounts and what they use, or drop a sign-in sheet.',
    first: ({ networks }) => {
      const network = twoModeNetworks(networks).at(0)?.id ?? '';
      return { network, sort: sortsOf(networks, network).at(0) ?? '' };
    },
    sentence: ProjectionSentence,
    knows: networksOf,
  },
];

export const questionOf = (what: WeaveKind): Question =>
  QUESTIONS.find((question) => question.what === what)!;

/** Why a question cannot be asked of a study yet; null where it can. */
export function whyNot(
  what: WeaveKind,
  overview: MessageOverview,
  networks: readonly Network[],
): string | null {
  return questionOf(what).whyNot({ overview, networks });
}

/** The question with which a study begins: the first one that can be asked of it. */
export function firstQuestion(overview: MessageOverview, networks: readonly Network[]): WeaveKind {
  const open = QUESTIONS.find(({ whyNot }) => whyNot({ overview, networks }) === null);
  return (open ?? QUESTIONS[0]).what;
}

/** The sentence with which a question begins, in this study; also where it cannot be asked of it yet. */
export function firstWeave(what: WeaveKind, overview: MessageOverview, networks: readonly Network[]): Weave {
  return Weave.parse({ what, ...questionOf(what).first({ overview, networks }) });
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
