import type { AccountWeave, AddressKind, MapDescription } from '@pebble/contract';
import { ADDRESS_VERB, counted, joinWith, verbPhrase } from '../../words/sentence';
import { usualMap } from '../common/firstMaps';
import { atLeastTimes } from '../common/least';
import type { Kind } from '../kind';

export { IN_REPOST, KIND_BIT, type AddressRows } from './make';

const DID: Readonly<Record<AddressKind, string>> = {
  reply: 'answered',
  comment: 'answered a comment of',
  quote: 'quoted',
  mention: 'mentioned',
  repost: 'reposted',
  to: 'wrote to',
  cc: 'sent a copy to',
  bcc: 'sent a blind copy to',
};

/** Ways in which emails address accounts, whose names are addresses. */
const BY_MAIL: ReadonlySet<AddressKind> = new Set(['to', 'cc', 'bcc']);

/** Addresses are longer than handles, and cannot be broken: there are fewer of them. */
function withAddresses(map: MapDescription): MapDescription {
  return { ...map, names: { ...map.names, count: 12 } };
}

/** Accounts tied by who addresses whom. */
export const accounts: Kind<AccountWeave> = {
  nodes: () => ['account', 'accounts'],
  tie: ({ kinds }) => `one ${verbPhrase(kinds)} another`,
  tieParts: ({ kinds }) => ['one ', verbPhrase(kinds), ' another'],
  least: (_, least) => atLeastTimes(least),
  conditions: ({ mostReceivers, share, repostMentions, kinds, selfTies, isolates }) => [
    ...(mostReceivers === null
      ? []
      : [`messages to more than ${counted(mostReceivers, 'account')} are left out`]),
    ...(share === 'divided' ? ['each message is divided by the accounts that it addresses'] : []),
    ...(repostMentions || !kinds.includes('mention') ? [] : ['mentions in reposted texts do not count']),
    ...(selfTies ? ['a post that addresses nobody is a tie of its author to itself'] : []),
    isolates ? 'accounts without a tie are kept' : 'accounts without a tie are left out',
  ],
  meaning: ({ kinds, repostMentions, share }) => {
    const repost =
      kinds.includes('repost') && repostMentions
        ? ' A repost counts for its author and for each account mentioned in the reposted text.'
        : '';
    if (share === 'divided')
      return `A message to four accounts adds ¼ to each of four ties. At least so many messages are needed for a tie.${repost}`;
    const did = joinWith(
      'or',
      kinds.map((kind) => DID[kind]),
    );
    return `A tie of weight 3 from A to B means: A ${did} B in three messages.${repost}`;
  },
  title: ({ kinds }) =>
    kinds.length > 3
      ? 'Who addresses whom'
      : `Who ${kinds.map((kind) => ADDRESS_VERB[kind]).join(', ')} whom`,
  sorts: () => ({ accounts: true, things: null }),
  tidied: () => ['account'],
  firstMap: ({ kinds }, directed) => {
    const map = usualMap(directed);
    return kinds.some((kind) => BY_MAIL.has(kind)) ? withAddresses(map) : map;
  },
  isDense: false,
  hasMessages: true,
  isByAddress: true,
};
