import fc from 'fast-check';
import { project, type Memberships } from './projection';

/** Memberships of a 0/1 matrix: rows are nodes, columns units. */
function of(matrix: readonly (readonly number[])[], time: readonly number[] = []): Memberships {
  const pairs = matrix.flatMap((row, node) => row.flatMap((cell, unit) => (cell ? [{ node, unit }] : [])));
  return {
    nodes: matrix.length,
    units: matrix[0]?.length ?? 0,
    node: Uint32Array.from(pairs, ({ node }) => node),
    unit: Uint32Array.from(pairs, ({ unit }) => unit),
    time: Float64Array.from(pairs, ({ unit }) => time[unit] ?? NaN),
  };
}
const count = { scale: 'count', atLeast: 1 } as const;
const ties = ({ source, target, weight }: ReturnType<typeof project>): string[] =>
  [...source].map((a, e) => `${a} ${target[e]} ${+weight[e].toFixed(6)}`);

/**
 * Attendance of 18 women at 14 events: Davis, Gardner & Gardner, "Deep South" (1941), as in the matrix that handbooks of network
 * analysis reproduce; from memory.
 */
const DAVIS = [
  '11111101100000',
  '11101111000000',
  '01111111100000',
  '10111111000000',
  '00111010000000',
  '00101101000000',
  '00001111000000',
  '00000101100000',
  '00001011100000',
  '00000011100100',
  '00000001110100',
  '00000001110111',
  '00000011110111',
  '00000110111111',
  '00000011011100',
  '00000001100000',
  '00000000101000',
  '00000000101000',
].map((row) => [...row].map(Number));

describe('project', () => {
  it('gives the product of the attendance matrix with its transpose (Davis, Gardner & Gardner 1941)', () => {
    expect(DAVIS.flat().reduce((sum, cell) => sum + cell, 0)).toBe(89);
    const women = project(of(DAVIS), count);
    for (let e = 0; e < women.source.length; e++) {
      const [a, b] = [DAVIS[women.source[e]], DAVIS[women.target[e]]];
      expect(women.weight[e]).toBe(a.reduce((sum, cell, i) => sum + cell * b[i], 0));
    }
    const meeting = DAVIS.flatMap((a, i) =>
      DAVIS.filter((b, j) => j > i && a.some((cell, k) => cell && b[k])),
    );
    expect(women.source).toHaveLength(meeting.length);
    const events = project(of(DAVIS[0].map((_, unit) => DAVIS.map((row) => row[unit]))), count);
    // The events with most women, 8 (14 women) and 9 (12), share 9 of them.
    expect(ties(events)).toContain('7 8 9');
  });

  it('weighs as in the worked case of Newman (2001): two authors of a paper of k share 1 / (k - 1) of it', () => {
    // Papers: {A, B}, {A, B, C}, {B, C, D}. A and B: 1/1 + 1/2; B and C: 1/2 + 1/2.
    const papers = of([
      [1, 1, 0],
      [1, 1, 1],
      [0, 1, 1],
      [0, 0, 1],
    ]);
    expect(ties(project(papers, { scale: 'newman', atLeast: 1 }))).toEqual([
      '0 1 1.5',
      '0 2 0.5',
      '1 2 1',
      '1 3 0.5',
      '2 3 0.5',
    ]);
  });

  it('gives Jaccard and cosine by their definitions', () => {
    const sets = of([
      [1, 1, 1, 0],
      [0, 1, 1, 1],
    ]);
    expect(ties(project(sets, { scale: 'jaccard', atLeast: 1 }))).toEqual(['0 1 0.5']);
    expect(ties(project(sets, { scale: 'cosine', atLeast: 1 }))).toEqual([`0 1 ${+(2 / 3).toFixed(6)}`]);
  });

  it('makes k (k - 1) / 2 ties of a unit of k', () => {
    const k = 7;
    expect(project(of(Array.from({ length: k }, () => [1])), count).source).toHaveLength((k * (k - 1)) / 2);
  });

  it('knows the first, the last and the days of shared units', () => {
    const day = 86_400_000;
    const both = [1, 1, 1, 1];
    const { first, last, days, dropped } = project(of([both, both], [3 * day, day + 5, day, NaN]), count);
    expect([first[0], last[0], days[0], dropped]).toEqual([day, 3 * day, 2, 0]);
  });

  it('counts authors of shared units once', () => {
    const shares = of([
      [1, 1, 1],
      [1, 1, 1],
      [0, 0, 1],
    ]);
    const authors = [9, 9, 4];
    const m = { ...shares, author: Uint32Array.from(shares.unit, (u) => authors[u]) };
    expect(ties(project(m, { scale: 'count', atLeast: 1, byAuthors: true }))).toEqual([
      '0 1 2',
      '0 2 1',
      '1 2 1',
    ]);
    const enough = project(m, { scale: 'count', atLeast: 2, byAuthors: true });
    expect([ties(enough), enough.dropped]).toEqual([['0 1 2'], 2]);
  });

  it('gives the same as counting pairs in a map, also when rows stand twice', () => {
    const row = fc.tuple(fc.nat(12), fc.nat(20));
    fc.assert(
      fc.property(fc.array(row, { maxLength: 120 }), (rows) => {
        const found = project(
          {
            nodes: 13,
            units: 21,
            node: Uint32Array.from(rows, ([node]) => node),
            unit: Uint32Array.from(rows, ([, unit]) => unit),
            time: new Float64Array(rows.length),
          },
          count,
        );
        const expected = new Map<string, number>();
        for (let unit = 0; unit < 21; unit++) {
          const members = [...new Set(rows.filter(([, u]) => u === unit).map(([node]) => node))];
          for (const a of members)
            for (const b of members)
              if (a < b) expected.set(`${a} ${b}`, (expected.get(`${a} ${b}`) ?? 0) + 1);
        }
        expect(ties(found).sort()).toEqual([...expected].map(([pair, n]) => `${pair} ${n}`).sort());
      }),
    );
  });
});
