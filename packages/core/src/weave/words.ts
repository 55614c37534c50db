import type { InStepWeave, NamedFilter, Scale, ThingKind, TogetherWeave, Weave } from '@pebble/contract';
import { filterPhrase } from '../query/filterPhrase';
import { capital, counted, formatCount, joinWith, periodPhrase, timesPhrase, verbPhrase } from './sentence';

/** What one and several things of a kind are called. */
export const THING_WORDS: Readonly<Record<ThingKind, readonly [one: string, many: string]>> = {
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
const USES: Readonly<Record<ThingKind, string>> = {
  hashtag: 'use',
  mention: 'mention',
  domain: 'link to',
  link: 'share',
  word: 'use',
  name: 'name',
  item: 'comment on',
  channel: 'comment on',
};
const UNIT: Readonly<Record<TogetherWeave['unit'], readonly [one: string, many: string]>> = {
  message: ['message', 'messages'],
  near: ['message', 'messages'],
  thread: ['thread', 'threads'],
  author: ['account', 'accounts'],
  'author-day': ['account and day', 'accounts and days'],
};
const SAME: Readonly<Record<InStepWeave['same'], string>> = {
  text: 'text',
  link: 'link',
  hashtags: 'set of hashtags',
};
const SCALED: Readonly<Record<Exclude<Scale, 'count'>, string>> = {
  newman: 'each shared one of size k counts 1 / (k - 1) (Newman 2001)',
  jaccard: 'the weight is the share of what either has (Jaccard)',
  cosine: 'the weight is what both have over the root of the product of what each has (cosine)',
};

/** Sorts of nodes whose plural is not made by an s. */
const PLURAL: Readonly<Record<string, string>> = { person: 'people' };

/** What one and several nodes of a weave are called; a network from a file has nodes. */
export function nodeWords(weave: Weave | null): readonly [one: string, many: string] {
  if (!weave) return ['node', 'nodes'];
  switch (weave.what) {
    case 'together':
      return THING_WORDS[weave.things];
    case 'two-mode':
      return [`account or ${THING_WORDS[weave.things][0]}`, `accounts and ${THING_WORDS[weave.things][1]}`];
    case 'groups':
      return ['group', 'groups'];
    case 'projection':
      return [weave.sort, PLURAL[weave.sort] ?? `${weave.sort}s`];
    case 'alike':
      return weave.nodes === 'message' ? ['message', 'messages'] : ['account', 'accounts'];
    default:
      return ['account', 'accounts'];
  }
}

/** Whether the nodes of a weave are accounts and nothing else. */
export function isOfAccounts(weave: Weave | null): boolean {
  return weave !== null && nodeWords(weave)[0] === 'account';
}

/** What ties two nodes: "one replies to another", "they stand in the same message". */
export function tiePhrase(weave: Weave): string {
  switch (weave.what) {
    case 'accounts':
      return `one ${verbPhrase(weave.kinds)} another`;
    case 'together':
      return togetherPhrase(weave);
    case 'shared':
      return `they ${USES[weave.things]} the same ${THING_WORDS[weave.things][1]}`;
    case 'two-mode':
      return `one ${USES[weave.things] === 'use' ? 'uses' : USES[weave.things].replace(/^\w+/, '$&s')} the other`;
    case 'follows':
      return 'one follows another';
    case 'in-step':
      return `they post the same ${SAME[weave.same]} within ${counted(weave.seconds, 'second')}`;
    case 'alike':
      return weave.likeness > 0
        ? `their wording is alike (${percent(weave.likeness)} or more of the words of either)`
        : 'they use the same words';
    case 'groups':
      return 'ties lead from one to the other';
    case 'projection':
      return 'they share nodes of the other sort';
  }
}

/** "60 %" */
function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

function togetherPhrase({ things, unit, within }: TogetherWeave): string {
  const uses = things === 'item' || things === 'channel' ? 'comments on both' : 'uses both';
  switch (unit) {
    case 'message':
      return 'they stand in the same message';
    case 'near':
      return `they stand within ${counted(within, 'word')} of each other`;
    case 'thread':
      return 'they stand in the same thread';
    case 'author':
      return `the same account ${uses}`;
    case 'author-day':
      return `the same account ${uses} on one day`;
  }
}

/** How much a tie needs at least: "at least twice", "in at least 3 messages", "at least 4 of them". */
export function leastPhrase(weave: Weave, least: number): string {
  switch (weave.what) {
    case 'together':
      return weave.weight === 'authors'
        ? `by at least ${few(least, 'author', 'authors')}`
        : `${weave.unit.startsWith('author') ? 'by' : 'in'} at least ${few(least, ...UNIT[weave.unit])}`;
    case 'shared':
    case 'projection':
      return `at least ${least === 1 ? 'one' : formatCount(least)} of them`;
    case 'in-step':
      return `with at least ${few(least, 'different one', 'different ones')}`;
    case 'alike':
      return `with at least ${few(least, 'shared word', 'shared words')}`;
    case 'groups':
      return `of weight ${formatCount(least)} or more`;
    default:
      return least === 1 ? 'at least once' : `at least ${timesPhrase(least)}`;
  }
}

/** "one message", "3 messages" */
function few(count: number, one: string, many: string): string {
  return count === 1 ? `one ${one}` : counted(count, one, many);
}

/** The least that a weave asks of a tie. */
export function leastOf(weave: Weave): number {
  return weave.what === 'follows' ? 1 : weave.atLeast;
}

/** Whether the weight of a tie is a count, of messages or of things, and not one that was divided or scaled. */
export function weighsByCounting(weave: Weave): boolean {
  if ('scale' in weave) return weave.scale === 'count';
  return !('share' in weave) || weave.share === 'whole';
}

/** The period of a weave with its zone, null where it has none of its own. */
export function periodOf(weave: Weave): string | null {
  if (!('from' in weave)) return null;
  const zone = weave.from === null && weave.until === null ? '' : ' (UTC)';
  return `${periodPhrase(weave.from, weave.until)}${zone}`;
}

/** What the weave makes, as one sentence. */
export function weaveSentence(weave: Weave): string {
  const least = leastOf(weave) > 1 ? ` ${leastPhrase(weave, leastOf(weave))}` : '';
  const period = periodOf(weave);
  const [, many] = nodeWords(weave);
  const head = `${capital(many)} tied when ${tiePhrase(weave)}${least}${period === null ? '' : `, ${period}`}`;
  return `${[head, ...takenPhrases(weave), ...conditions(weave), ...endings(weave)].join('; ')}.`;
}

/** Which messages are taken. */
function takenPhrases(weave: Weave): string[] {
  if (!('only' in weave)) return [];
  const { only, except, withoutSources } = weave;
  const named = ({ name, filter }: NamedFilter): string => `“${name}” (${filterPhrase(filter)})`;
  return [
    ...(only ? [`only messages of the filter ${named(only)}`] : []),
    ...(except ? [`without messages of the filter ${named(except)}`] : []),
    ...(withoutSources.length > 0
      ? [
          `without the ${withoutSources.length === 1 ? 'source' : 'sources'} ${joinWith(
            'and',
            withoutSources.map(({ name }) => `“${name}”`),
          )}`,
        ]
      : []),
  ];
}

/** What is done when the ties are counted. */
function endings(weave: Weave): string[] {
  if (weave.what === 'groups') return [];
  const direction = 'direction' in weave ? weave.direction : 'kept';
  return [
    ...(direction === 'kept' ? [] : [TURNED[direction]]),
    ...(weave.backbone === null
      ? []
      : [`only ties that stand out for one of their ends (disparity filter at ${weave.backbone})`]),
    ...(weave.neighboursAtLeast === null
      ? []
      : [`only nodes tied to at least ${counted(weave.neighboursAtLeast, 'other')}`]),
    ...(weave.largestOnly ? ['only the largest component'] : []),
  ];
}

const TURNED = {
  sum: 'both directions added up',
  least: 'the weaker direction counts',
  greatest: 'the stronger direction counts',
  mutual: 'only where both directions are, added up',
} as const;

/** What else holds of a weave, beside what ties its nodes. */
function conditions(weave: Weave): string[] {
  switch (weave.what) {
    case 'accounts':
      return [
        ...(weave.mostReceivers === null
          ? []
          : [`messages to more than ${counted(weave.mostReceivers, 'account')} are left out`]),
        ...(weave.share === 'divided' ? ['each message is divided by the accounts that it addresses'] : []),
        ...(weave.repostMentions || !weave.kinds.includes('mention')
          ? []
          : ['mentions in reposted texts do not count']),
        ...(weave.selfTies ? ['a post that addresses nobody is a tie of its author to itself'] : []),
        weave.isolates ? 'accounts without a tie are kept' : 'accounts without a tie are left out',
      ];
    case 'together':
    case 'shared':
    case 'two-mode': {
      const [, many] = THING_WORDS[weave.things];
      return [
        ...(weave.what !== 'two-mode' && weave.scale !== 'count' ? [SCALED[weave.scale]] : []),
        ...(weave.what === 'together' && weave.weight === 'authors' && weave.scale === 'count'
          ? ['the weight is the number of different authors']
          : []),
        ...(weave.usedAtLeast > 1
          ? [`only ${many} in ${formatCount(weave.usedAtLeast)} messages or more`]
          : []),
        ...(weave.mostUsed === null ? [] : [`only the ${formatCount(weave.mostUsed)} in most messages`]),
        ...(weave.without.length > 0
          ? [
              `without ${joinWith('and', weave.without.slice(0, 8))}${weave.without.length > 8 ? ` and ${weave.without.length - 8} more` : ''}`,
            ]
          : []),
        `messages with more than ${counted(weave.mostInOne, ...THING_WORDS[weave.things])} are left out`,
        ...(weave.reposts ? [] : ['reposts are left out']),
      ];
    }
    case 'follows':
      return [
        ...(weave.sorts === 'two' ? ['followers and lists are two sorts of nodes'] : []),
        ...(weave.listsAtLeast > 1
          ? [`only followers of ${formatCount(weave.listsAtLeast)} or more of the listed accounts`]
          : []),
      ];
    case 'in-step':
    case 'alike':
      return weave.reposts ? [] : ['reposts are left out'];
    case 'projection':
      return [
        ...(weave.scale === 'count' ? [] : [SCALED[weave.scale]]),
        ...(weave.partnersAtLeast > 1 ? [`each tied to at least ${formatCount(weave.partnersAtLeast)}`] : []),
      ];
    case 'groups':
      return [
        `groups by “${weave.column}”`,
        ...(weave.open.length > 0 ? [`the nodes of ${joinWith('and', weave.open)} are shown singly`] : []),
      ];
  }
}
