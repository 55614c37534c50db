import fc from 'fast-check';
import type { TableColumns } from '../../network/tables';
import { CsvReader } from '../csv';
import { writeGraphml } from '../writeGraphml';
import { writeNodesCsv, writeTiesCsv } from '../writeTables';
import { guessColumns } from '../columns';
import { NetworkBuilder, type FoundNetwork } from './foundNetwork';
import { takeEdge } from './edgeTable';
import { readGraphml } from './graphml';

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
