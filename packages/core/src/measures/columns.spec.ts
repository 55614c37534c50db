import { columnTitle, isCategory, NODE_COLUMNS, nodeColumns } from './columns';
import { nodeLabels } from '../network/tables';

const names = (kind: Parameters<typeof nodeColumns>[0]): string[] =>
  nodeColumns(kind).map(({ name }) => name);
const how = (kind: Parameters<typeof nodeColumns>[0], name: string): string =>
  nodeColumns(kind).find((column) => column.name === name)!.how;

describe('the columns of a network', () => {
  it('are all of them for a directed network of messages', () => {
    expect(names({ directed: true, hasMessages: true })).toEqual(NODE_COLUMNS.map(({ name }) => name));
  });

  it('have no halves where ties have no direction, and no messages where there are none', () => {
    expect(names({ directed: false, hasMessages: false })).toEqual([
      'degree',
      'strength',
      'betweenness',
      'component',
      'community',
    ]);
  });

  it('say how they were computed, in words that fit the network', () => {
    expect(how({ directed: true, hasMessages: true }, 'inDegree')).toContain('reply to');
    expect(how({ directed: true, hasMessages: false }, 'inDegree')).toBe('Other nodes with a tie to it.');
    expect(how({ directed: true, hasMessages: true }, 'betweenness')).toContain('ordered pairs');
    expect(how({ directed: false, hasMessages: true }, 'betweenness')).not.toContain('direction');
  });

  it('have titles; a column of a file is called what the file calls it', () => {
    expect(columnTitle('inDegree')).toBe('in-degree');
    expect(columnTitle('age')).toBe('age');
    expect(isCategory('community')).toBe(true);
    expect(isCategory('age')).toBe(false);
  });
});

describe('labels of nodes', () => {
  it('are handles where there are messages, labels of the file otherwise', () => {
    const table = { handle: ['n1', 'n2'], name: ['First', ''] };
    expect(nodeLabels({ ...table, messages: new Float64Array(2) })).toEqual(['n1', 'n2']);
    expect(nodeLabels(table)).toEqual(['First', 'n2']);
    expect(nodeLabels({ handle: ['a'] })).toEqual(['a']);
  });
});
