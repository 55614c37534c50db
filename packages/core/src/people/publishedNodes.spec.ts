import { leftOutColumns, publishedNodes, publishedTitles, tellingColumns } from './publishedNodes';

const nodes = {
  id: Uint32Array.of(41, 42, 43),
  handle: ['ann', 'quay_shop', 'cem'],
  name: ['Ann L.', 'Quay Shop', ''],
  messages: Float64Array.of(3, 4, 5),
  location: ['Low Street', '', 'Hill'],
  joined: Float64Array.of(2011, 2012, NaN),
  bio: ['I walk', 'We sell', ''],
  role: ['resident', 'shop', 'resident'],
};
const own: { name: string; type: 'number' | 'text' | 'category' }[] = [
  { name: 'joined', type: 'number' },
  { name: 'bio', type: 'text' },
  { name: 'role', type: 'category' },
];

describe('nodes as they are published', () => {
  it('leave out where somebody is, since when, and free texts, unless these are chosen; and what is chosen', () => {
    const leftOut = (details: string[], without: string[] = []): string[] =>
      leftOutColumns(nodes, own, { details, without });
    expect(leftOut([])).toEqual(['location', 'joined', 'bio']);
    expect(leftOut(['joined'])).toEqual(['location', 'bio']);
    expect(leftOut([], ['role'])).toEqual(['location', 'joined', 'bio', 'role']);
    expect(tellingColumns(nodes, own)).toEqual(['location', 'joined', 'bio', 'role']);
  });

  it('have pseudonyms as handles, no names beside them, and no number by which the study knows them', () => {
    const published = publishedNodes(
      nodes,
      ['amber heron', null, 'moss gull'],
      ['location', 'joined', 'bio'],
    );
    expect(published).toEqual({
      id: Uint32Array.of(1, 2, 3),
      handle: ['amber heron', 'quay_shop', 'moss gull'],
      name: ['', 'Quay Shop', ''],
      messages: nodes.messages,
      role: nodes.role,
    });
    expect(Object.keys(published).slice(0, 3)).toEqual(['id', 'handle', 'name']);
  });

  it('give groups that are called by a node its pseudonym, and leave other titles', () => {
    const titles = {
      community: { '1': 'round ann', '2': 'round cem (2)', '3': '#lamps', '4': 'round the harbour' },
    };
    const called = publishedTitles(titles, nodes.handle, ['amber heron', null, 'moss gull']);
    expect(called).toEqual({
      community: {
        '1': 'round amber heron',
        '2': 'round moss gull (2)',
        '3': '#lamps',
        '4': 'round the harbour',
      },
    });
    expect(
      publishedTitles({ community: { '1': 'round quay_shop' } }, nodes.handle, ['a', null, 'c']),
    ).toEqual({
      community: { '1': 'round quay_shop' },
    });
  });
});
