import { smallCells } from './smallCells';

const nodes = {
  role: [...Array.from({ length: 6 }, () => 'resident'), 'mayor', 'shop', 'shop', ''],
  joined: Float64Array.of(2011, 2011, 2011, 2011, 2011, 2012, 2011, 2012, 2012, NaN),
};
const all = Array.from({ length: 10 }, (_, v) => v);

describe('small cells', () => {
  it('are combinations that fewer share than asked: counted by hand', () => {
    // Five residents of 2011 are enough; a resident of 2012, the mayor and two shops are not.
    expect(smallCells(nodes, ['role', 'joined'], all, 5)).toEqual({
      columns: ['role', 'joined'],
      combinations: 3,
      people: 4,
    });
    expect(smallCells(nodes, ['role', 'joined'], all, 2)).toMatchObject({ combinations: 2, people: 2 });
    expect(smallCells(nodes, ['role'], all, 5)).toMatchObject({ combinations: 2, people: 3 });
  });

  it('leave aside who has no value, and nodes that are no people', () => {
    expect(smallCells(nodes, ['role', 'joined'], [9], 5)).toMatchObject({ combinations: 0, people: 0 });
    expect(smallCells(nodes, ['role'], [0, 1, 2, 3, 4], 5)).toMatchObject({ combinations: 0 });
  });

  it('are none without columns', () => {
    expect(smallCells(nodes, [], all, 5)).toEqual({ columns: [], combinations: 0, people: 0 });
  });
});
