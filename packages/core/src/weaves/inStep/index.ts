import type { InStepWeave } from '@pebble/contract';
import { counted } from '../../words/sentence';
import { usualMap } from '../common/firstMaps';
import { few } from '../common/least';
import type { Kind } from '../kind';

const SAME: Readonly<Record<InStepWeave['same'], string>> = {
  text: 'text',
  link: 'link',
  hashtags: 'set of hashtags',
};

/** Accounts tied when they post the same within seconds. */
export const inStep: Kind<InStepWeave> = {
  nodes: () => ['account', 'accounts'],
  tie: ({ same, seconds }) => `they post the same ${SAME[same]} within ${counted(seconds, 'second')}`,
  least: (_, least) => `with at least ${few(least, 'different one', 'different ones')}`,
  conditions: ({ reposts }) => (reposts ? [] : ['reposts are left out']),
  meaning: ({ seconds }) =>
    `A tie of weight 3 between A and B means: with three different ones, both posted the same within ${counted(seconds, 'second')}. Each tie also says how likely that is by chance, given what both post and how often; people who answer one event together look alike, so read the messages before you call it coordination.`,
  title: ({ same }) => `Who posts the same ${same} in step`,
  sorts: () => ({ accounts: true, things: null }),
  tidied: () => ['account'],
  firstMap: (_, directed) => usualMap(directed),
  isDense: false,
  hasMessages: true,
  isByAddress: false,
};
