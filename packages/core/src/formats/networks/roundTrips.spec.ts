import fc from 'fast-check';
import type { TableColumns } from '../../network/tables';
import { CsvReader } from '../csv';
import { writeGraphml } from '../writeGraphml';
import { writeNodesCsv, writeTiesCsv } from '../writeTables';
import { guessColumns } from '../columns';
import { NetworkBuilder, type FoundNetwork } from './foundNetwork';
import { takeEdge } from './edgeTable';
import { dotParts } from '../writeDot';
import { gmlParts } from '../writeGml';
import { jsonGraphParts, nodeLinkParts } from '../writeJson';
import { networkWorkbook } from '../writeWorkbook';
import { readWorkbook } from '../workbook';
import { readDot } from './dot';
import { readGml } from './gml';
import { readGraphml } from './graphml';
import { readJsonGraph } from './jsonGraph';
import { readNodeLink } from './nodeLink';

// What we export is read back the same: names with every mark that XML and CSV treat apart.
const letters = fc.constantFrom(
  'a',
  'B',
  'é',
  '&',
  '<',
  '>',
  '"',
  "'",
  ' ',
  ',',
  ';',
  '🦋',
  'ש',
  '\n',
  ']]>',
  '–',
);
const names = fc
  .uniqueArray(
    fc.string({ unit: letters, minLength: 1, maxLength: 8 }).map((name) => `n${name}`.trim()),
    {
      minLength: 1,
      maxLength: 8,
    },
  )
  .filter((all) => new Set(all.map((name) => name.trim())).size === all.length);

interface Small {
  readonly handles: string[];
  readonly pairs: [number, number][];
  readonly weights: number[];
  readonly directed: boolean;
}

const networks: fc.Arbitrary<Small> = names.chain((handles) =>
  fc
    .uniqueArray(fc.tuple(fc.nat(handles.length - 1), fc.nat(handles.length - 1)), {
      selector: ([a, b]) => `${Math.min(a, b)} ${Math.max(a, b)}`,
      maxLength: 12,
    })
    .chain((pairs) =>
      fc.record({
        handles: fc.constant(handles),
        pairs: fc.constant(pairs),
        weights: fc.array(fc.integer({ min: 1, max: 1e9 }), {
          minLength: pairs.length,
          maxLength: pairs.length,
        }),
        directed: fc.boolean(),
      }),
    ),
);

const tables = ({ handles, pairs, weights }: Small): { nodes: TableColumns; edges: TableColumns } => ({
  nodes: {
    id: Uint32Array.from(handles, (_, v) => v),
    handle: handles,
    name: handles.map((handle) => `${handle} & Co`),
    age: Float64Array.from(handles, (_, v) => (v % 3 === 0 ? NaN : v / 7)),
  },
  edges: {
    source: Uint32Array.from(pairs, ([a]) => a),
    target: Uint32Array.from(pairs, ([, b]) => b),
    weight: Float64Array.from(weights),
  },
});

/** "source target weight" of every tie, by handles; of an undirected network with the ends in order. */
function ties({ nodes, edges, directed }: FoundNetwork, nameOf: (v: number) => string): string[] {
  void nodes;
  return Array.from(edges['weight'] as Float64Array, (weight, e) => {
    const ends = [nameOf(edges['source'][e] as number), nameOf(edges['target'][e] as number)];
    return `${(directed ? ends : ends.sort()).join(' → ')} ${weight}`;
  }).sort();
}

const expected = ({ handles, pairs, weights, directed }: Small): string[] =>
  pairs
    .map(([a, b], e) => {
      const ends = [handles[a], handles[b]];
      return `${(directed ? ends : ends.sort()).join(' → ')} ${weights[e]}`;
    })
    .sort();

const all = (parts: Iterable<string>): string => [...parts].join('');
const parts = (small: Small): [TableColumns, TableColumns, number, boolean] => {
  const { nodes, edges } = tables(small);
  return [nodes, edges, small.handles.length, small.directed];
};

describe('what is exported', () => {
  it('as GraphML is read back with its direction, names, numbers and weights', () => {
    fc.assert(
      fc.property(networks, (small) => {
        const { nodes, edges } = tables(small);
        const found = readGraphml(writeGraphml(nodes, edges, small.handles.length, small.directed));
        // What our handle is becomes the label by which the node is shown.
        const handles = found.nodes['name'] as string[];
        expect(found.directed).toBe(small.directed);
        expect(found.nodeCount).toBe(small.handles.length);
        expect(handles).toEqual(small.handles);
        expect(ties(found, (v) => handles[v])).toEqual(expected(small));
        const age = found.nodes['age'];
        if (small.handles.length > 1)
          expect([...(age as Float64Array)]).toEqual([...(nodes['age'] as Float64Array)]);
      }),
    );
  });

  it.each([
    ['JSON Graph', (n: Small) => all(jsonGraphParts(...parts(n), 'A "name"')), readJsonGraph],
    ['node-link JSON', (n: Small) => all(nodeLinkParts(...parts(n))), readNodeLink],
    ['GML', (n: Small) => all(gmlParts(...parts(n))), readGml],
    ['DOT', (n: Small) => all(dotParts(...parts(n))), readDot],
  ] as const)('as %s is read back with its direction, names, numbers and weights', (_, write, read) => {
    fc.assert(
      fc.property(networks, (small) => {
        const found = read(write(small));
        expect(found.nodeCount).toBe(small.handles.length);
        // A network without ties has no direction in every format.
        if (small.pairs.length > 0) expect(found.directed).toBe(small.directed);
        const handles = found.nodes['name'] as string[];
        expect(handles).toEqual(small.handles);
        expect(ties(found, (v) => handles[v])).toEqual(expected(small));
        const age = found.nodes['age'];
        if (small.handles.length > 1)
          expect([...(age as Float64Array)]).toEqual([...(tables(small).nodes['age'] as Float64Array)]);
      }),
    );
  });

  it('as GML is ASCII, with keys of letters and digits, none twice', () => {
    const nodes = { id: Uint32Array.of(0), handle: ['ö "x" & 🦋'], 'in-degree': Uint32Array.of(4), 'in degree': Float64Array.of(5e9), '7': ['a'] }; // prettier-ignore
    const text = all(gmlParts(nodes, { source: new Uint32Array(), target: new Uint32Array() }, 1, true));
    expect(text).toMatch(/^[\n\x20-\x7e]*$/);
    expect(text).toContain('label "&#246; &#34;x&#34; &#38; &#129419;"');
    const keys = [...text.matchAll(/^ {4}(\S+) /gm)].map(([, key]) => key);
    expect(keys).toEqual(['id', 'label', 'column7', 'handle', 'indegree', 'indegree2']);
    // A whole number of more than 32 bits is a real one.
    expect(text).toContain('indegree2 5000000000.0');
  });

  it('as a workbook is read back: a sheet of nodes and one of ties, texts as texts', () => {
    const nodes = { id: Uint32Array.of(0, 1), handle: ['=1+1', 'b'], age: Float64Array.of(NaN, 2.5) };
    const edges = { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(3), first: Float64Array.of(0) }; // prettier-ignore
    const sheets = readWorkbook(networkWorkbook(nodes, edges, 2));
    expect(sheets.map(({ name, rows }) => [name, rows])).toEqual([
      [
        'nodes',
        [
          ['id', 'handle', 'age'],
          ['=1+1', '=1+1'],
          ['b', 'b', '2.5'],
        ],
      ],
      [
        'ties',
        [
          ['source', 'target', 'weight', 'first'],
          ['=1+1', 'b', '3', '1970-01-01T00:00:00.000Z'],
        ],
      ],
    ]);
    const many = new Uint32Array(1_048_576);
    expect(() => networkWorkbook(nodes, { source: many, target: many }, 2)).toThrow(
      /1,048,575 rows, and this network has 1,048,576 ties/,
    );
  });

  it('as a table of ties is read back with its ends and weights', () => {
    fc.assert(
      fc.property(networks, (small) => {
        const { edges } = tables(small);
        const builder = new NetworkBuilder(true);
        let header: readonly string[] = [];
        const rows: { row: number; values: readonly string[]; extra: null }[] = [];
        const reader = new CsvReader(
          ',',
          { onRecord: ({ row, values }) => void rows.push({ row, values, extra: null }), onSkip: fail },
          (found) => (header = found),
        );
        reader.write(writeTiesCsv(edges, small.handles));
        reader.end();
        const columns = guessColumns(
          header,
          rows.map(({ values }) => values),
          'network',
        );
        const take = takeEdge({ columns } as Parameters<typeof takeEdge>[0], builder);
        for (const row of rows) expect(take(row)).toBeNull();
        if (small.pairs.length === 0) return;
        const found = builder.finish();
        const handles = found.nodes['handle'] as string[];
        expect(ties(found, (v) => handles[v])).toEqual(expected({ ...small, directed: true }));
      }),
    );
  });

  it('as a table of nodes has a row for each, and an empty cell where a number is missing', () => {
    fc.assert(
      fc.property(networks, (small) => {
        const { nodes } = tables(small);
        const rows: (readonly string[])[] = [];
        const reader = new CsvReader(',', { onRecord: ({ values }) => void rows.push(values), onSkip: fail });
        reader.write(writeNodesCsv(nodes, small.handles.length));
        reader.end();
        expect(rows.map(([, handle]) => handle)).toEqual(small.handles);
        rows.forEach(([, , , age], v) => expect(age === '').toBe(v % 3 === 0));
      }),
    );
  });
});

function fail(row: number, _field: string | null, reason: string): void {
  throw new Error(`Line ${row}: ${reason}`);
}
