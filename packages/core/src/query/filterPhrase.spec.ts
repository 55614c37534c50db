import { MessageFilter } from '@pebble/contract';
import { filterPhrase } from './filterPhrase';

describe('a filter in words', () => {
  it.each([
    [{}, 'all messages'],
    [{ kind: 'reply', author: '@mira_f', text: 'harbour' }, 'replies by @mira_f with “harbour”'],
    [
      { hashtag: '#lanterns', language: 'fr', marked: 'starred' },
      'messages with #lanterns in the language fr with a star',
    ],
    [{ scored: 'tone', scoreUntil: -2 }, 'messages with tone up to -2'],
    [
      { from: Date.UTC(2031, 8, 1), sample: 1000 },
      'messages from 1 September 2031 in a sample of 1,000 drawn with seed 1',
    ],
  ])('%j', (filter, words) => {
    expect(filterPhrase(MessageFilter.parse(filter))).toBe(words);
  });
});
