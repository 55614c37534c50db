import { tidyAddresses, tidyFollows, tidyOccurrences } from './apply';

const now = (map: Record<number, number>) => (thing: number) => map[thing] ?? thing;

describe('tidyAddresses', () => {
  const rows = {
    count: 4,
    message: [1, 1, 2, 3],
    from: [7, 7, 8, 9],
    to: [4, 5, 7, 9],
    kinds: [1, 2, 1, 0],
    time: [10, 10, 20, 30],
  };
  const list = (map: Record<number, number>): number[][] => {
    const { count, message, from, to, kinds } = tidyAddresses(rows, now(map));
    return Array.from({ length: count }, (_, i) => [message[i], from[i], to[i], kinds[i]]);
  };

  it('makes one row of two to what is one account now', () => {
    expect(list({ 5: 4 })).toEqual([
      [1, 7, 4, 3],
      [2, 8, 7, 1],
      [3, 9, 9, 0],
    ]);
  });

  it('leaves out messages of one that is left out, and keeps those to it as addressing nobody', () => {
    expect(list({ 7: -1 })).toEqual([
      [2, 8, 8, 0],
      [3, 9, 9, 0],
    ]);
  });
});

it('tidies where things stand', () => {
  const occurrences = { count: 3, message: [1, 1, 2], author: [7, 7, 8], thing: [0, 1, 2], time: [5, 5, 6] };
  const { count, message, thing, author } = tidyOccurrences(occurrences, now({ 1: 0, 2: -1 }), now({ 7: 9 }));
  expect([count, [...message], thing, author]).toEqual([2, [1, 1], [0, 0], [9, 9]]);
});

it('tidies who follows whom', () => {
  const rows = { follower: Uint32Array.of(1, 2, 3), followed: Uint32Array.of(5, 5, 1) };
  const { follower, followed } = tidyFollows(rows, now({ 2: 1, 3: 1 }));
  expect([[...follower], [...followed]]).toEqual([[1], [5]]);
});
