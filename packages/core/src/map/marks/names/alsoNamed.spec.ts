import { alsoNamed } from './alsoNamed';

const colours = ['#a', '#b', '#c'];
const group = (value: number, colour: string) => ({ value, colour, nodes: 2, leader: '' });
const paint = {
  colours,
  colour: Uint8Array.of(0, 0, 1, 1, 2, 2),
  groups: [group(1, '#a'), group(2, '#b'), group(-1, '#c')],
};
/** Node 5 is first in rank. */
const rank = Uint32Array.of(5, 0, 1, 3, 2, 4);
const size = [2, 3, 9, 2, 2, 2];

describe('who is named beside the first in rank', () => {
  it('is the two largest of each group that has a colour of its own, the largest of these first', () => {
    expect(alsoNamed(rank, 1, size, paint)).toEqual({
      nodes: [2, 1, 0, 3],
      phrase: 'the two largest of each group',
    });
  });

  it('is nobody who is named anyhow', () => {
    expect(alsoNamed(rank, 4, size, paint)).toEqual({ nodes: [2], phrase: 'the two largest of each group' });
    expect(alsoNamed(rank, 6, size, paint)).toEqual({ nodes: [], phrase: '' });
  });

  it('is the largest of all where it is in no such group, or where colours are no groups', () => {
    const apart = [2, 3, 4, 2, 9, 2];
    expect(alsoNamed(rank, 1, apart, paint)).toEqual({
      nodes: [4, 2, 1, 0, 3],
      phrase: 'the largest of all and two of each group',
    });
    expect(alsoNamed(rank, 1, apart, { ...paint, groups: [] })).toEqual({
      nodes: [4],
      phrase: 'the largest',
    });
  });

  it('is nobody where several are as large and colours are no groups, and nobody without names', () => {
    expect(alsoNamed(rank, 1, [9, 2, 9, 2, 2, 2], { ...paint, groups: [] }).nodes).toEqual([]);
    expect(alsoNamed(rank, 0, size, paint).nodes).toEqual([]);
    expect(alsoNamed(Uint32Array.of(), 3, size, paint).nodes).toEqual([]);
  });
});
