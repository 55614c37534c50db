import { guessFormat } from '../sniff';
import { readNodeLink } from './nodeLink';

const file = (value: object): string => JSON.stringify(value);

describe('node-link JSON (common practice)', () => {
  it('is read with its nodes, their names and attributes, by id', () => {
    const found = readNodeLink(
      file({
        nodes: [{ id: 'a', name: 'Ada', size: 3, code: '007' }, { id: 'b' }, { id: 'c', name: 'Cem' }],
        links: [
          { source: 'a', target: 'b', value: 2, since: '2026' },
          { source: 'b', target: 'c' },
        ],
      }),
    );
    expect(found.nodes['handle']).toEqual(['a', 'b', 'c']);
    expect(found.nodes['name']).toEqual(['Ada', '', 'Cem']);
    expect([found.nodes['size'], found.nodes['code']]).toEqual([
      Float64Array.of(3, NaN, NaN),
      ['007', '', ''],
    ]);
    expect([...(found.edges['source'] as Uint32Array)]).toEqual([0, 1]);
    expect([...(found.edges['weight'] as Float64Array)]).toEqual([2, 1]);
    expect(found.edges['since']).toEqual(['2026', '']);
  });

  it('is read by places where ends are numbers that are no ids, and from the attributes of a graph library', () => {
    const places = readNodeLink(
      file({ directed: false, nodes: [{ name: 'x' }, { name: 'y' }], edges: [{ source: 0, target: 1 }] }),
    );
    expect([places.nodes['name'], places.directed]).toEqual([['x', 'y'], false]);
    const keyed = readNodeLink(
      file({
        nodes: [{ key: 'a', attributes: { label: 'Ada' } }, { key: 'b' }],
        edges: [{ source: 'a', target: 'b', attributes: { weight: 4 } }],
      }),
    );
    expect([keyed.nodes['name'], [...(keyed.edges['weight'] as Float64Array)]]).toEqual([['Ada', ''], [4]]);
  });

  it('that names a node which is not there is refused with the edge', () => {
    expect(() => readNodeLink(file({ nodes: [{ id: 'a' }], links: [{ source: 'a', target: 'z' }] }))).toThrow(
      'Edge 1 names the node “z”',
    );
  });

  it('is known by its lists, and a list of messages is not taken for it', () => {
    const format = (value: object): string => guessFormat(file(value), 'x.json').format;
    expect(format({ nodes: [{ id: 'a' }], links: [{ source: 'a', target: 'a' }] })).toBe('node-link');
    expect(format({ links: [{ source: 0, target: 0 }], nodes: [{ name: 'x' }] })).toBe('node-link');
    // As a widely used graph library writes it (from memory of its documentation): what is said of the graph stands first.
    const said = { directed: true, multigraph: false, graph: { name: 'x' } };
    for (const list of ['links', 'edges'])
      expect(format({ ...said, nodes: [{ id: 'a' }, { id: 'alone' }], [list]: [{ source: 'a', target: 'a' }] })).toBe('node-link'); // prettier-ignore
    expect(format({ ...said, graph: {}, nodes: [{ id: 'a' }], links: [] })).toBe('node-link');
    // The JSON Graph Format has all within its graph.
    expect(format({ graph: { directed: true, nodes: [], edges: [] } })).toBe('jgf');
    expect(format({ posts: [{ id: 'a', text: 'b', author: 'c' }] })).toBe('json');
  });
});
