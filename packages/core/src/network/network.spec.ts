import fc from 'fast-check';
import { parse } from 'graphology-graphml';
import Graphology from 'graphology';
import { escapeXml } from '../formats/markup';
import { writeGraphml } from '../formats/writeGraphml';
import { nodeIds, writeNodesCsv, writeTiesCsv } from '../formats/writeTables';
import { randomTwin } from '../testing/known';
import { basicMeasures, communitiesPhrase } from '../measures/basics/basicMeasures';
import { fromArrow, graphOf, numbersOf, toArrow, type TableColumns } from './tables';

const nodes = {
  id: Uint32Array.of(1, 2),
  handle: ['a & "b"', '=cmd\u0001'],
  score: Float64Array.of(0.5, NaN),
};
const edges = {
  source: Uint32Array.of(0),
  target: Uint32Array.of(1),
  weight: Float64Array.of(3),
  first: Float64Array.of(Date.UTC(2026, 2, 1)),
  last: Float64Array.of(NaN),
};

describe('Arrow tables', () => {
  it('come back as they were written', () => {
    const back = fromArrow(toArrow(nodes));
    expect([...numbersOf(back, 'id')]).toEqual([1, 2]);
    expect(back['handle']).toEqual(nodes.handle);
    expect([...numbersOf(back, 'score')]).toEqual([0.5, NaN]);
    expect(() => numbersOf(back, 'handle')).toThrow('handle');
  });

  it('may have one list of numbers in two columns', () => {
    const shared = Float64Array.of(1, 2, 3);
    const parts = new Uint32Array([4, 5, 6, 7, 8, 9]);
    const columns = { weight: shared, shared, a: parts.subarray(0, 3), b: parts.subarray(3) };
    expect(fromArrow(toArrow(columns))).toEqual(columns);
  });

  it('give some of their rows, in the order that is asked for', () => {
    const bytes = toArrow({
      handle: ['ann', 'béa', 'cem'],
      weight: Float64Array.of(0.5, NaN, 2),
      id: Uint32Array.of(7, 8, 9),
    });
    expect(fromArrow(bytes, ['handle', 'weight'], [2, 0, 2])).toEqual({
      handle: ['cem', 'ann', 'cem'],
      weight: Float64Array.of(2, 0.5, 2),
    });
    expect(fromArrow(bytes, undefined, [1])).toEqual({
      handle: ['béa'],
      weight: Float64Array.of(NaN),
      id: Uint32Array.of(8),
    });
  });

  it('keep texts of any length and script, also more than were reckoned with', () => {
    const text = fc.string({
      unit: fc.constantFrom('a', 'é', 'ש', '漢', '🦋', '\u0000', '"'),
      maxLength: 60,
    });
    fc.assert(
      fc.property(fc.array(text, { maxLength: 40 }), (handle) => {
        const padded = [...handle, 'x'.repeat(5000), ''];
        expect(fromArrow(toArrow({ handle: padded }))['handle']).toEqual(padded);
      }),
    );
  });

  it('can be empty', () => {
    expect(numbersOf(fromArrow(toArrow({ source: new Uint32Array(0), name: [] })), 'source')).toHaveLength(0);
  });
});

describe('GraphML', () => {
  it('is read back by graphology-graphml with all nodes, ties and columns', () => {
    const { graph } = randomTwin(2, 20, 60);
    const columns: TableColumns = {
      handle: Array.from({ length: 20 }, (_, v) => `<n> & ${v}`),
      ...basicMeasures(graph, { resolution: 1, seed: 1, runs: 1 }).columns,
    };
    const text = writeGraphml(
      columns,
      { source: graph.source, target: graph.target, weight: graph.weight },
      20,
    );
    const back = parse(Graphology, text);
    expect(back.order).toBe(20);
    expect(back.size).toBe(graph.source.length);
    expect(back.getNodeAttribute('n3', 'handle')).toBe('<n> & 3');
    expect(back.getNodeAttribute('n3', 'inDegree')).toBe(columns['inDegree'][3]);
    expect(back.getEdgeAttribute('e0', 'weight')).toBe(graph.weight[0]);
  });

  it('leaves out what XML 1.0 forbids, and numbers that are none', () => {
    expect(escapeXml('a\u0000b<&>"')).toBe('ab&lt;&amp;&gt;&quot;');
    expect(writeGraphml(nodes, edges, 2)).not.toContain('NaN');
  });
});

describe('CSV tables', () => {
  it('hold all columns, with formulas made harmless', () => {
    expect(writeNodesCsv(nodes, 2)).toBe(
      `id,handle,score\r\n"a & ""b""","a & ""b""",0.5\r\n"'=cmd\u0001","'=cmd\u0001",\r\n`,
    );
    // Ids are the handles where no two are the same, so that the table of ties joins; else numbers in both.
    expect(nodeIds({ handle: ['x', 'x'] })).toEqual(['n0', 'n1']);
    expect(writeTiesCsv(edges, ['a', 'b'])).toBe(
      'source,target,weight,first,last\r\na,b,3,2026-03-01T00:00:00.000Z,\r\n',
    );
  });
});

describe('basicMeasures', () => {
  it('counts components and isolates and reports its progress', () => {
    const phases = new Set<string>();
    const found = basicMeasures(
      graphOf(4, edges),
      { resolution: 1, seed: 1, runs: 2 },
      (phase) => void phases.add(phase),
    );
    expect(found).toMatchObject({ components: 3, largestComponent: 2, isolates: 2, pivots: null });
    expect(communitiesPhrase(found)).toBe('1 community beside 2 isolates');
    expect(communitiesPhrase({ communities: 1200, isolates: 0 })).toBe('1,200 communities');
    expect([...numbersOf(found.columns, 'component')]).toEqual([1, 1, 2, 3]);
    expect([...phases]).toEqual(['Betweenness', 'Degrees and components', 'Communities']);
  });
});
