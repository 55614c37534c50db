import fc from 'fast-check';
import type { ImportMapping, SkippedRow } from '@pebble/contract';
import { BrokenNetwork, type FoundNetwork } from './foundNetwork';
import { cellWeight, takeTwoMode, TwoModeBuilder } from './twoMode';

const reading = (names: string[], change: Partial<ImportMapping['twoMode']>): ImportMapping => ({
  material: 'two-mode',
  format: 'csv',
  sheet: null,
  encoding: 'utf-8',
  delimiter: ',',
  dateForm: 'iso',
  zoneOffsetMinutes: 0,
  columns: names.map((name, i) => ({
    name,
    role: i === 0 ? 'source' : change.layout === 'matrix' ? 'thing' : i === 1 ? 'target' : 'weight',
  })),
  followed: '',
  twoMode: { layout: 'pairs', between: ';', empty: 'zero', repeats: 'sum', ...change },
});

function read(names: string[], rows: string[][], change: Partial<ImportMapping['twoMode']> = {}) {
  const how = reading(names, change);
  const builder = new TwoModeBuilder(how);
  const take = takeTwoMode(how, builder);
  const skipped: SkippedRow[] = rows.flatMap((values, i) => take({ row: i + 2, values, extra: null }) ?? []);
  return { network: builder.finish(), skipped };
}

/** "person thing weight" of every tie. */
function ties({ nodes, edges }: FoundNetwork): string[] {
  const handles = nodes['handle'] as string[];
  return Array.from(
    edges['weight'] as Float64Array,
    (weight, e) =>
      `${handles[edges['source'][e] as number]} ${handles[edges['target'][e] as number]} ${weight}`,
  );
}

/**
 * Attendance of 18 women (rows) at 14 social events: Davis, Gardner & Gardner, Deep South (1941). Written down from memory; the sums are
 * those that are published: 89 attendances, and 3, 3, 6, 4, 8, 8, 10, 14, 12, 5, 4, 6, 3, 3 by event.
 */
const ATTENDED = [
  [1, 2, 3, 4, 5, 6, 8, 9],
  [1, 2, 3, 5, 6, 7, 8],
  [2, 3, 4, 5, 6, 7, 8, 9],
  [1, 3, 4, 5, 6, 7, 8],
  [3, 4, 5, 7],
  [3, 5, 6, 8],
  [5, 6, 7, 8],
  [6, 8, 9],
  [5, 7, 8, 9],
  [7, 8, 9, 12],
  [8, 9, 10, 12],
  [8, 9, 10, 12, 13, 14],
  [7, 8, 9, 10, 12, 13, 14],
  [6, 7, 9, 10, 11, 12, 13, 14],
  [7, 8, 10, 11, 12],
  [8, 9],
  [9, 11],
  [9, 11],
];
const EVENTS = Array.from({ length: 14 }, (_, i) => `E${i + 1}`);

describe('two-mode data', () => {
  it('reads a matrix of 18 people by 14 events as 89 ties (Davis, Gardner & Gardner 1941)', () => {
    const rows = ATTENDED.map((events, i) => [
      `W${i + 1}`,
      ...EVENTS.map((_, e) => (events.includes(e + 1) ? 'Yes' : 'no')),
    ]);
    const { network } = read(['', ...EVENTS], rows, { layout: 'matrix' });
    expect(network).toMatchObject({ directed: true, nodeCount: 32 });
    expect(network.edges['weight']).toHaveLength(89);
    const inDegree = new Array<number>(32).fill(0);
    for (const v of network.edges['target'] as Uint32Array) inDegree[v]++;
    // People have in-degree 0 (common practice).
    expect(inDegree.slice(0, 18)).toEqual(new Array(18).fill(0));
    expect(inDegree.slice(18)).toEqual([3, 3, 6, 4, 8, 8, 10, 14, 12, 5, 4, 6, 3, 3]);
    expect(network.nodes['mode']).toEqual([...new Array(18).fill('person'), ...new Array(14).fill('thing')]);
  });

  it('takes empty cells for no, or for missing by choice', () => {
    const rows = [
      ['ann', '1', ''],
      ['ben', '', '2'],
    ];
    const zero = read(['who', 'a', 'b'], rows, { layout: 'matrix' }).network;
    expect(zero.nodes['missing']).toBeUndefined();
    const open = read(['who', 'a', 'b'], rows, { layout: 'matrix', empty: 'missing' }).network;
    expect(ties(open)).toEqual(['ann a 1', 'ben b 2']);
    expect([...(open.nodes['missing'] as Float64Array)].slice(0, 2)).toEqual([1, 1]);
    expect(open.notes.join()).toContain('2 empty cells count as missing');
  });

  it('adds repeated pairs up, or keeps them once', () => {
    const rows = [
      ['ann', 'fair', '2'],
      ['ann', 'fair', '3'],
    ];
    expect(ties(read(['who', 'what', 'times'], rows).network)).toEqual(['ann fair 5']);
    const once = read(['who', 'what', 'times'], rows, { repeats: 'once' }).network;
    expect(ties(once)).toEqual(['ann fair 2']);
    expect(once.notes.join()).toContain('1 repeated pairs were kept once');
  });

  it('splits cells that hold several values', () => {
    const { network } = read(
      ['who', 'tags'],
      [
        ['ann', 'wall; lamp ;'],
        ['ben', ''],
      ],
      { layout: 'cells' },
    );
    expect(ties(network)).toEqual(['ann wall 1', 'ann lamp 1']);
    expect(network.nodes['handle']).toEqual(['ann', 'ben', 'wall', 'lamp']);
  });

  it('keeps a person and a thing of one name apart', () => {
    expect(ties(read(['who', 'what'], [['quay', 'quay']]).network)).toEqual(['quay quay (thing) 1']);
  });

  it('names row and column of what is no answer, and takes nothing of such a row', () => {
    const { network, skipped } = read(
      ['who', 'a', 'b'],
      [
        ['ann', 'yes', 'perhaps'],
        ['ben', '1', '0'],
      ],
      {
        layout: 'matrix',
      },
    );
    expect(skipped).toEqual([{ row: 2, field: 'b', reason: '“perhaps” is neither yes nor no nor a count.' }]);
    expect(ties(network)).toEqual(['ben a 1']);
    expect(() => read(['who', 'a', 'a'], [], { layout: 'matrix' })).toThrow(BrokenNetwork);
    const nobody = read(
      ['who', 'what'],
      [
        ['', 'x'],
        ['ann', 'x'],
      ],
    );
    expect(nobody.skipped[0].reason).toBe('The row names nobody.');
  });

  it.each([
    ['YES', 1],
    ['no', 0],
    ['x', 1],
    [' 12 ', 12],
    ['-1', null],
    ['', null],
    ['maybe', null],
  ])('reads the cell “%s” as %s', (cell, weight) => {
    expect(cellWeight(cell)).toBe(weight);
  });

  it('counts as many ties in pairs as a matrix of the same cells has', () => {
    const table = fc.array(fc.array(fc.nat(3), { minLength: 4, maxLength: 4 }), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(table, (cells) => {
        const things = ['a', 'b', 'c', 'd'];
        const matrix = cells.map((row, i) => [`p${i}`, ...row.map(String)]);
        const pairs = cells.flatMap((row, i) => row.map((cell, k) => [`p${i}`, things[k], String(cell)]));
        const one = read(['who', ...things], matrix, { layout: 'matrix' }).network;
        const other = read(['who', 'what', 'times'], pairs).network;
        expect(ties(one).sort()).toEqual(ties(other).sort());
      }),
    );
  });
});
