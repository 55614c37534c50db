import { groupCodes, withOthers } from './groupCodes';

describe('groupCodes', () => {
  it('numbers groups by size, and equal ones by their first node', () => {
    const found = groupCodes(['b', 'a', 'c', 'a', '', 'a', 'c']);
    expect(found.names).toEqual(['a', 'c', 'b', '']);
    expect([...found.of]).toEqual([2, 0, 1, 0, 3, 0, 1]);
    expect([...found.size]).toEqual([3, 2, 1, 1]);
  });

  it('takes the numbers of computed groups as their names', () => {
    expect(groupCodes(Uint32Array.of(1, 2, 1)).names).toEqual(['1', '2']);
  });

  it('puts all but the largest together, and those of one node', () => {
    const few = withOthers(groupCodes(['b', 'a', 'c', 'a', '', 'a', 'c']), 9);
    expect(few.names).toEqual(['a', 'c', '2 others']);
    expect([...few.of]).toEqual([2, 0, 1, 0, 2, 0, 1]);
    expect([...few.size]).toEqual([3, 2, 2]);
    expect(withOthers(few, 9)).toBe(few);
    const two = withOthers(groupCodes(['a', 'a', 'a', 'b', 'b', 'b', 'c', 'c']), 2);
    expect(two.names).toEqual(['a', '2 others']);
  });
});
