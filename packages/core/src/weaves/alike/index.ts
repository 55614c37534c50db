import type { AlikeWeave } from '@pebble/contract';
import { usualMap } from '../common/firstMaps';
import { few } from '../common/least';
import type { Kind } from '../kind';

/** "60 %" */
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Messages or accounts tied by how alike their wording is. */
export const alike: Kind<AlikeWeave> = {
  nodes: ({ nodes }) => (nodes === 'message' ? ['message', 'messages'] : ['account', 'accounts']),
  tie: ({ likeness }) =>
    likeness > 0
      ? `their wording is alike (${percent(likeness)} or more of the words of either)`
      : 'they use the same words',
  least: (_, least) => `with at least ${few(least, 'shared word', 'shared words')}`,
  conditions: ({ reposts }) => (reposts ? [] : ['reposts are left out']),
  meaning: ({ likeness, nodes }) => {
    const tie =
      likeness > 0
        ? 'A tie of weight 0.8 between A and B means: of all words of either, both have 80 %.'
        : 'A tie of weight 8 between A and B means: they share eight words.';
    const easily =
      nodes === 'message' ? 'short messages are easily alike' : 'accounts that write much easily share words';
    return `${tie} Order, repeats and very common words do not count; ${easily}.`;
  },
  title: ({ nodes }) => `Which ${nodes}s are worded alike`,
  sorts: ({ nodes }) => ({ accounts: nodes === 'account', things: null }),
  tidied: () => ['account', 'word'],
  firstMap: (_, directed) => usualMap(directed),
  isDense: false,
  hasMessages: true,
  isByAddress: false,
};
