import fc from 'fast-check';
import type { TableColumns } from '../../network/tables';
import { writeGraphml } from '../writeGraphml';
import { readAdjacencyList } from './adjacency';
import { readDot } from './dot';
import { BrokenNetwork, type FoundNetwork } from './foundNetwork';
import { readGml } from './gml';
import { readGraphml } from './graphml';
import { readJsonGraph } from './jsonGraph';
import { isSquareMatrix, readMatrix } from './matrix';

const handles = (network: FoundNetwork): readonly string[] => network.nodes['handle'] as string[];
const ties = (network: FoundNetwork): string[] =>
  Array.from(
    network.edges['source'] as Uint32Array,
    (a, e) => `${handles(network)[a]} ${handles(network)[network.edges['target'][e] as number]}`,
  );
const broken = (read: () => unknown): BrokenNetwork => {
  try {
    read();
  } catch (error) {
    if (error instanceof BrokenNetwork) return error;
    throw error;
  }
  throw new Error('It was read.');
};

describe('readGraphml', () => {
  const wrap = (inside: string): string =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<graphml xmlns="http://graphml.graphdrawing.org/xmlns">${inside}</graphml>`;

  // The simple graph of the GraphML primer (Brandes, Eiglsperger & Lerner), written down from memory.
  it('reads the simple graph of the primer: 11 nodes, 12 edges', () => {
    const pairs = ['0 2', '1 2', '2 3', '3 5', '3 4', '4 6', '6 5', '5 7', '6 8', '8 7', '8 9', '8 10'];
    const nodes = Array.from({ length: 11 }, (_, i) => `<node id="n${i}"/>`).join('');
    const edges = pairs
      .map((pair) => `<edge source="n${pair.split(' ')[0]}" target="n${pair.split(' ')[1]}"/>`)
      .join('');
    const network = readGraphml(wrap(`<graph id="G" edgedefault="undirected">${nodes}${edges}</graph>`));
    expect(network).toMatchObject({ nodeCount: 11, directed: false, weighted: false });
    expect(network.edges['source']).toHaveLength(12);
  });

  // The primer's example of attributes: a colour with a default, and weights of some edges; from memory.
  it('reads the attributes of the primer, with their defaults', () => {
    const network = readGraphml(
      wrap(`
  <key id="d0" for="node" attr.name="color" attr.type="string"><default>yellow</default></key>
  <key id="d1" for="edge" attr.name="weight" attr.type="double"/>
  <graph id="G" edgedefault="undirected">
    <node id="n0"><data key="d0">green</data></node><node id="n1"/><node id="n2"><data key="d0">blue</data></node>
    <node id="n3"><data key="d0">red</data></node><node id="n4"/><node id="n5"><data key="d0">turquoise</data></node>
    <edge id="e0" source="n0" target="n2"><data key="d1">1.0</data></edge>
    <edge id="e1" source="n0" target="n1"><data key="d1">1.0</data></edge>
    <edge id="e2" source="n1" target="n3"><data key="d1">2.0</data></edge>
    <edge id="e3" source="n3" target="n2"/><edge id="e4" source="n2" target="n4"/><edge id="e5" source="n3" target="n5"/>
    <edge id="e6" source="n5" target="n4"><data key="d1">1.1</data></edge>
  </graph>`),
    );
    expect(network.nodes['color']).toEqual(['green', 'yellow', 'blue', 'red', 'yellow', 'turquoise']);
    expect([...(network.edges['weight'] as Float64Array)]).toEqual([1, 1, 2, 1, 1, 1, 1.1]);
    expect(network.weighted).toBe(true);
  });

  it('reads back what we write, with typed columns', () => {
    const nodes: TableColumns = {
      handle: ['a & b', '<c>', '“d”'],
      betweenness: Float64Array.of(0.5, 0, 1),
      note: ['x', '', 'z'],
    };
    const edges: TableColumns = {
      source: Uint32Array.of(0, 1, 1),
      target: Uint32Array.of(1, 2, 1),
      weight: Float64Array.of(3, 1, 2),
      replies: Float64Array.of(2, 0, 1),
    };
    const network = readGraphml(writeGraphml(nodes, edges, 3));
    expect(network.nodes['name']).toEqual(nodes['handle']);
    expect(network.nodes['betweenness in file']).toEqual(nodes['betweenness']);
    expect(network.nodes['note']).toEqual(nodes['note']);
    expect(network.edges).toEqual(edges);
    expect(network.directed).toBe(true);
  });

  it('says where it is broken', () => {
    expect(broken(() => readGraphml(wrap('\n<graph><node/></graph>')))).toMatchObject({
      row: 3,
      message: 'A node has no id.',
    });
    expect(broken(() => readGraphml('<graphml><graph></graphml>')).message).toContain('well-formed');
    expect(broken(() => readGraphml('<x/>')).message).toContain('no GraphML');
    expect(
      broken(() =>
        readGraphml(
          wrap(
            '<key id="w" for="edge" attr.name="weight"/><graph><edge source="a" target="b"><data key="w">-1</data></edge></graph>',
          ),
        ),
      ).message,
    ).toContain('“-1”');
  });

  it('refuses entities of the document’s own, so that nothing expands or is fetched', () => {
    const bomb =
      '<!DOCTYPE g [<!ENTITY a "aaaa"><!ENTITY b SYSTEM "file:///etc/passwd">]><graphml><graph><node id="&a;"/></graph></graphml>';
    expect(broken(() => readGraphml(bomb)).message).toContain('entities of its own');
  });
});

describe('readGml', () => {
  // The sample graph of Himsolt (1997), "GML: a portable graph file format", written down from memory.
  const sample = `
graph [
  comment "This is a sample graph"
  directed 1
  id 42
  label "Hello, I am a graph"
  node [ id 1 label "Node 1" thisIsASampleAttribute 42 ]
  node [ id 2 label "Node 2" thisIsASampleAttribute 43 graphics [ x 1.0 y 2.0 ] ]
  node [ id 3 label "Node &quot;3&quot;" thisIsASampleAttribute 44 ]
  edge [ source 1 target 2 label "Edge from node 1 to node 2" ]
  edge [ source 2 target 3 label "Edge from node 2 to node 3" ]
  edge [ source 3 target 1 label "Edge from node 3 to node 1" ]
]`;

  it('reads the sample graph of its author', () => {
    const network = readGml(sample);
    expect(network).toMatchObject({ nodeCount: 3, directed: true });
    expect(network.nodes['name']).toEqual(['Node 1', 'Node 2', 'Node "3"']);
    expect(network.nodes['thisIsASampleAttribute']).toEqual(Float64Array.of(42, 43, 44));
    expect(ties(network)).toEqual(['1 2', '2 3', '3 1']);
  });

  it('says where it is broken', () => {
    expect(broken(() => readGml('graph [\nnode [ id 1 ]\nedge [ source 1 target 9 ]\n]'))).toMatchObject({
      row: 3,
      message: 'An edge names the node “9”, which is not in the file.',
    });
    expect(broken(() => readGml('graph [ node [ id 1 ]')).message).toContain('closing bracket');
    expect(broken(() => readGml('graph [ node [ id "1 ] ]')).message).toContain('quotation mark');
    expect(broken(() => readGml('key value')).message).toContain('no GML');
  });
});

describe('readJsonGraph', () => {
  it('reads version 2, nodes by their ids', () => {
    const network = readJsonGraph(
      JSON.stringify({
        graph: {
          directed: false,
          nodes: {
            0: { label: 'node label(0)', metadata: { w: 1.3 } },
            1: { label: 'node label(1)', metadata: { w: 2 } },
          },
          edges: [{ source: '0', target: '1', relation: 'edge relationship', metadata: { weight: 4 } }],
        },
      }),
    );
    expect(network).toMatchObject({ nodeCount: 2, directed: false, weighted: true });
    expect(network.nodes['name']).toEqual(['node label(0)', 'node label(1)']);
    expect(network.edges['relation']).toEqual(['edge relationship']);
    expect(network.edges['weight']).toEqual(Float64Array.of(4));
  });

  it('reads version 1, nodes in a list, and the first of several graphs', () => {
    const network = readJsonGraph(
      '{"graphs": [{"nodes": [{"id": 12345678901234567890, "label": "a"}, {"id": "b"}], "edges": [{"source": 12345678901234567890, "target": "b"}]}, {}]}',
    );
    expect(handles(network)).toEqual(['12345678901234567890', 'b']);
    expect(network.notes[0]).toContain('2 graphs');
  });

  it('says what is wrong', () => {
    expect(broken(() => readJsonGraph('{"graph": ')).message).toContain('Not valid JSON');
    expect(broken(() => readJsonGraph('{"a": 1}')).message).toContain('no “graph”');
    expect(broken(() => readJsonGraph('{"graph": {"edges": [{"source": "a"}]}}')).message).toContain(
      'Edge 1',
    );
  });
});

describe('readDot', () => {
  it('reads chains, attributes, comments and subgraphs', () => {
    const network = readDot(`
      /* who calls whom */ strict digraph "G" {
        node [shape=box]; rankdir = LR;
        main [label="The main one", size=3];
        main -> parse -> execute [weight=2]; // a chain
        subgraph cluster_a { init; "make string":port -> init }
        main -> main
      }`);
    expect(handles(network)).toEqual(['main', 'parse', 'execute', 'init', 'make string']);
    expect(network.nodes['name']).toEqual(['The main one', '', '', '', '']);
    expect(ties(network)).toEqual(['main parse', 'parse execute', 'make string init', 'main main']);
    expect([...(network.edges['weight'] as Float64Array)]).toEqual([2, 2, 1, 1]);
  });

  it('reads an undirected graph', () => {
    expect(readDot('graph { a -- b; b -- a }')).toMatchObject({ directed: false, nodeCount: 2 });
    expect(readDot('graph { a -- b; b -- a }').edges['weight']).toEqual(Float64Array.of(2));
  });

  it('says what it does not read, and where', () => {
    expect(broken(() => readDot('digraph {\n a -- b }'))).toMatchObject({
      row: 2,
      message: '“--” stands in a digraph.',
    });
    expect(broken(() => readDot('digraph { a -> {b c} }')).message).toContain('whole subgraph');
    expect(broken(() => readDot('digraph { {a} -> b }')).message).toContain('whole subgraph');
    expect(broken(() => readDot('digraph { a [label=<<b>x</b>>] }')).message).toContain('HTML');
    expect(broken(() => readDot('digraph { a -> b')).message).toContain('closing bracket');
    expect(broken(() => readDot('hello { }')).message).toContain('neither graph nor digraph');
  });
});

describe('lists and matrices', () => {
  it('reads an adjacency list', () => {
    const network = readAdjacencyList('# comment\na b c\nb c\nd\n', ' ');
    expect(handles(network)).toEqual(['a', 'b', 'c', 'd']);
    expect(ties(network)).toEqual(['a b', 'a c', 'b c']);
  });

  it('reads a matrix, undirected when it is symmetric', () => {
    const header = ['', 'a', 'b', 'c'];
    const symmetric = readMatrix(header, [
      ['a', '0', '2', ''],
      ['b', '2', '0', '1'],
      ['c', '', '1', '0'],
    ]);
    expect(symmetric).toMatchObject({ directed: false });
    expect(ties(symmetric)).toEqual(['a b', 'b c']);
    const directed = readMatrix(header, [
      ['a', '1', '2', ''],
      ['b', '0', '0', '1'],
      ['c', '', '1', '0'],
    ]);
    expect(directed).toMatchObject({ directed: true });
    expect(ties(directed)).toEqual(['a a', 'a b', 'b c', 'c b']);
  });

  it('says which cell, row or name of a matrix is wrong', () => {
    expect(
      isSquareMatrix(
        ['', 'a', 'b'],
        [
          ['a', '0', '1'],
          ['b', '1', '0'],
        ],
      ),
    ).toBe(true);
    expect(
      isSquareMatrix(
        ['', 'a', 'b'],
        [
          ['x', '0', '1'],
          ['y', '1', '0'],
        ],
      ),
    ).toBe(false);
    expect(broken(() => readMatrix(['', 'a', 'b'], [['a', '0', '1']])).message).toContain('must be square');
    expect(broken(() => readMatrix(['', 'a', 'a'], [])).message).toContain('stands twice');
    expect(
      broken(() =>
        readMatrix(
          ['', 'a', 'b'],
          [
            ['a', '0', 'x'],
            ['b', '0', '0'],
          ],
        ),
      ),
    ).toMatchObject({
      row: 2,
      message: 'The cell of “a” and “b” is “x”, which is no weight.',
    });
    expect(
      broken(() =>
        readMatrix(
          ['', 'a', 'b'],
          [
            ['b', '0', '0'],
            ['a', '0', '0'],
          ],
        ),
      ).message,
    ).toContain('must be the same');
  });

  it('gives back the ties of any small network through a matrix', () => {
    const weights = fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 16, maxLength: 16 });
    fc.assert(
      fc.property(weights, (cells) => {
        fc.pre(cells.some((cell) => cell > 0));
        const names = [...'abcd'];
        const rows = names.map((name, i) => [name, ...cells.slice(4 * i, 4 * i + 4).map(String)]);
        const network = readMatrix(['', ...names], rows);
        const total = [...(network.edges['weight'] as Float64Array)].reduce((sum, w) => sum + w, 0);
        const half = (_: number, i: number): boolean => network.directed || Math.floor(i / 4) <= i % 4;
        expect(total).toBe(cells.filter(half).reduce((sum, w) => sum + w, 0));
      }),
    );
  });
});
