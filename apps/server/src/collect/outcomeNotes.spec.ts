import { RunCounts, type CollectPlan } from '@pebble/contract';
import { outcomeNotes } from './outcomeNotes';

const counts = (part: Partial<RunCounts>): RunCounts => ({ ...RunCounts.parse({}), ...part });
const followers: CollectPlan = { what: 'followers', accounts: ['a', 'b', 'c'], most: 400, details: false };
const search: CollectPlan = {
  what: 'search',
  query: 'lamps',
  language: '',
  from: null,
  until: null,
  most: 100,
};

describe('what a run says of itself', () => {
  it('tells lists that were cut from lists that came whole', () => {
    expect(outcomeNotes(followers, counts({ cutLists: 1, wholeLists: 2 }))).toEqual([
      'Of 1 account the service has more followers: the first 400 of each were taken, as asked for.',
      'Of 2 accounts all followers came that the service shows.',
    ]);
  });

  it('says why a search brought less, or that there is more', () => {
    expect(outcomeNotes(search, counts({ messages: 60 }))[0]).toContain('60 came');
    expect(outcomeNotes(search, counts({ messages: 100, cutLists: 1 }))).toEqual([
      'As many came as were asked for (100); the service has more.',
    ]);
    expect(outcomeNotes(search, counts({ messages: 100, wholeLists: 1 }))).toEqual([]);
  });

  it('counts one thing as one', () => {
    const one = counts({
      messages: 100,
      deleted: 1,
      repeated: 1,
      expandedLinks: 1,
      limited: 1,
      waitedSeconds: 1,
    });
    expect(outcomeNotes(search, one)).toEqual([
      '1 post had been deleted (Tombstone).',
      '1 thing came twice, since pages moved while they were read.',
      '1 short link was expanded; both are kept.',
      'The budget of requests was used up 1 time, and the run waited 1 second.',
    ]);
  });
});
