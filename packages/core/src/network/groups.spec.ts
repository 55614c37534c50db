import { matchGroups } from './groups';

const row = (node: string | null, group: string, at = 1) => ({ row: at, node, group });
const handles = ['ann', 'ben', 'cleo'];
const names = ['Ann H.', '', 'Cleo'];

describe('matchGroups', () => {
  it('gives every node the group of its row, by handle or by name', () => {
    const rows = [row('@Ben', 'pilots'), row('ann h.', 'moths'), row('cleo', 'moths')];
    expect(matchGroups(handles, names, rows)).toEqual({
      values: ['moths', 'pilots', 'moths'],
      groups: 2,
      note: null,
    });
  });

  it('tells how the file differs, and gives nothing', () => {
    const rows = [row('ann', 'a'), row('ann', 'b'), row('dora', 'a')];
    expect(matchGroups(handles, names, rows)).toEqual({
      difference:
        '2 nodes have no group (ben, cleo); 1 name of the file is not in the network (dora); 1 node has two groups (ann)',
    });
  });

  it('takes a plain list in the order of the network', () => {
    const list = (...groups: string[]) => groups.map((group) => row(null, group));
    expect(matchGroups(handles, names, list('a', 'b', 'a'))).toMatchObject({ values: ['a', 'b', 'a'] });
    expect(matchGroups(handles, names, list('group', 'a', 'b', 'a'))).toEqual({
      values: ['a', 'b', 'a'],
      groups: 2,
      note: 'The first line, “group”, was taken as a heading.',
    });
    expect(matchGroups(handles, names, list('a'))).toEqual({
      difference: 'the list has 1 values and the network has 3 nodes',
    });
  });
});
