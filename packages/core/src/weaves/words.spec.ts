import { Weave } from '@pebble/contract';
import { isOfAccounts, nodeWords } from '.';
import { weaveSentence } from './words';

const march = { from: Date.UTC(2026, 2, 1), until: Date.UTC(2026, 3, 1) };

describe('what a weave is called', () => {
  it.each<[object, string]>([
    [
      { what: 'together', things: 'hashtag', atLeast: 3, without: ['LateLampPlan'], mostUsed: 200, ...march },
      'Hashtags tied when they stand in the same message in at least 3 messages, 1 March to 31 March 2026 (UTC); only the 200 in most messages; without LateLampPlan; messages with more than 30 hashtags are left out.',
    ],
    [
      { what: 'together', things: 'item', unit: 'author', scale: 'cosine' },
      'Items tied when the same account comments on both, at any time; the weight is what both have over the root of the product of what each has (cosine); messages with more than 30 items are left out.',
    ],
    [
      { what: 'shared', things: 'domain', atLeast: 2, reposts: false },
      'Accounts tied when they link to the same domains at least 2 of them, at any time; messages with more than 30 domains are left out; reposts are left out.',
    ],
    [
      { what: 'two-mode', things: 'hashtag' },
      'Accounts and hashtags tied when one uses the other, at any time; messages with more than 30 hashtags are left out.',
    ],
    [
      { what: 'follows', listsAtLeast: 2 },
      'Accounts tied when one follows another; only followers of 2 or more of the listed accounts.',
    ],
    [
      { what: 'in-step', seconds: 90, atLeast: 3 },
      'Accounts tied when they post the same text within 90 seconds with at least 3 different ones, at any time; reposts are left out.',
    ],
    [
      { what: 'groups', network: 'n', column: 'community', open: ['3'], atLeast: 5 },
      'Groups tied when ties lead from one to the other of weight 5 or more; groups by “community”; the nodes of 3 are shown singly.',
    ],
    [
      { what: 'accounts', kinds: ['to', 'cc'], mostReceivers: 20, share: 'divided', isolates: false },
      'Accounts tied when one writes to or sends a copy to another, at any time; messages to more than 20 accounts are left out; each message is divided by the accounts that it addresses; accounts without a tie are left out.',
    ],
  ])('%j', (given, sentence) => {
    expect(weaveSentence(Weave.parse(given))).toBe(sentence);
  });

  it('knows what its nodes are', () => {
    expect(nodeWords(null)).toEqual(['node', 'nodes']);
    expect(isOfAccounts(Weave.parse({ what: 'in-step' }))).toBe(true);
    expect(isOfAccounts(Weave.parse({ what: 'together', things: 'word' }))).toBe(false);
  });
});
