import type { MapDescription, TogetherWeave } from '@pebble/contract';
import { counted } from '../../words/sentence';
import { mapBy } from '../common/firstMaps';
import { few } from '../common/least';
import { SCALED, WEIGHED } from '../common/scales';
import { sortsOfThings, thingConditions, THING_WORDS, tidiedWith } from '../common/thingWords';
import type { Kind, OneAndMany } from '../kind';

type Unit = TogetherWeave['unit'];

const UNIT: Readonly<Record<Unit, OneAndMany>> = {
  message: ['message', 'messages'],
  near: ['message', 'messages'],
  thread: ['thread', 'threads'],
  author: ['account', 'accounts'],
  'author-day': ['account and day', 'accounts and days'],
};

/** What three of a unit mean. */
const THREE: Readonly<Record<Unit, (within: string) => string>> = {
  message: () => 'A and B stand together in three messages',
  near: (within) => `A and B stand within ${within} of each other in three messages`,
  thread: () => 'A and B both stand in three threads, not always in one message',
  author: () => 'three accounts used both, not always at once',
  'author-day': () => 'three times an account used both on one day',
};

/** Titles are longer than handles: there are fewer of them, in two lines. */
function withTitles(map: MapDescription): MapDescription {
  return { ...map, names: { ...map.names, count: 15, length: 'two lines' } };
}

/** Things tied when they stand together. */
export const together: Kind<TogetherWeave> = {
  nodes: ({ things }) => THING_WORDS[things],
  tie: ({ things, unit, within }) => {
    const uses = things === 'item' || things === 'channel' ? 'comments on both' : 'uses both';
    const ties: Readonly<Record<Unit, string>> = {
      message: 'they stand in the same message',
      near: `they stand within ${counted(within, 'word')} of each other`,
      thread: 'they stand in the same thread',
      author: `the same account ${uses}`,
      'author-day': `the same account ${uses} on one day`,
    };
    return ties[unit];
  },
  least: ({ weight, unit }, least) =>
    weight === 'authors'
      ? `by at least ${few(least, 'author', 'authors')}`
      : `${unit.startsWith('author') ? 'by' : 'in'} at least ${few(least, ...UNIT[unit])}`,
  conditions: (weave) => [
    ...(weave.scale === 'count' ? [] : [SCALED[weave.scale]]),
    ...(weave.weight === 'authors' && weave.scale === 'count'
      ? ['the weight is the number of different authors']
      : []),
    ...thingConditions(weave),
  ],
  meaning: ({ scale, weight, unit, within }) => {
    if (scale !== 'count') return WEIGHED[scale];
    if (weight === 'authors' && unit !== 'author')
      return 'A tie of weight 3 between A and B means: three accounts wrote what stands behind it.';
    return `A tie of weight 3 between A and B means: ${THREE[unit](counted(within, 'word'))}.`;
  },
  title: ({ things }) => `Which ${THING_WORDS[things][1]} go together`,
  sorts: ({ things }) => sortsOfThings(things),
  tidied: ({ things }) => tidiedWith(things),
  firstMap: ({ things }) => {
    const map = mapBy('messages', 'messages');
    return things === 'item' ? withTitles(map) : map;
  },
  isDense: true,
  hasMessages: true,
  isByAddress: false,
};
