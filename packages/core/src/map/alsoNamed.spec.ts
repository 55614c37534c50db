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
const radius = [2, 2, 9, 2, 2, 2];

describe('who is named beside the first in rank', () => {
  it('is the largest, and the first of each group that has a colour of its own', () => {
    const found = alsoNamed(rank, 1, radius, paint);
    expect(found).toEqual({ nodes: [2, 0, 3], phrase: 'the largest and the first of each group' });
  });

  it('is nobody who is named anyhow', () => {
    expect(alsoNamed(rank, 4, radius, paint)).toEqual({ nodes: [2], phrase: 'the largest' });
    expect(alsoNamed(rank, 6, radius, paint)).toEqual({ nodes: [], phrase: '' });
  });

  it('is no largest one where several are as large, and nobody without names', () => {
    expect(alsoNamed(rank, 4, [9, 2, 9, 2, 2, 2], paint).nodes).toEqual([]);
    expect(alsoNamed(rank, 0, radius, paint).nodes).toEqual([]);
    expect(alsoNamed(Uint32Array.of(), 3, radius, paint).nodes).toEqual([]);
  });
});
