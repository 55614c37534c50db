import { tooLarge } from './tooLarge';

describe('a page that would be too large', () => {
  const days = { first: 0, tie: [], day: [], messages: [] };

  it('is refused above 50 MB, with what is in it that can be left out', () => {
    expect(tooLarge(50_000_000, { messages: null, days })).toBeNull();
    expect(tooLarge(63_400_000, { messages: { all: [], behind: [] }, days })).toBe(
      'The page would be 63 MB large; more than 50 open in no browser in good time. Leave out the texts of messages, or time, or columns that are not needed, or nodes and ties that the map need not show.',
    );
    expect(tooLarge(1.2e9, { messages: null, days: null })).toMatch(
      /^The page would be 1,200 MB .* Leave out columns/,
    );
  });
});
