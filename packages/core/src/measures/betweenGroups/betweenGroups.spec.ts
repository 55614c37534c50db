import fc from 'fast-check';
import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { betweenGroups } from './betweenGroups';

describe('ties between groups', () => {
  // 0 is tied with 1 to 4; 5 is alone. Groups: 0 1 | 2 3 | 4.
  const rows = withoutSelfLoops(neighbourRows(makeGraph(6, [0, 0, 0, 0, 2], [1, 2, 3, 4, 3])));
  const found = betweenGroups(rows, [0, 0, 1, 1, 2, 0]);

  it('spread over groups as Guimerà & Amaral (2005) say: 1 - (1/16 + 4/16 + 1/16)', () => {
    expect(found.participation[0]).toBeCloseTo(1 - 6 / 16, 12);
    expect(found.participation[1]).toBe(0);
    expect([...found.groupsTouched]).toEqual([3, 1, 2, 2, 1, 0]);
  });

  it('lead outwards as Krackhardt & Stern (1988) say: three outside and one inside give 1/2', () => {
    expect([...found.outwardness]).toEqual([0.5, -1, 0, 0, 1, NaN]);
  });

  it('stay within their range', () => {
    const pairs = fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { maxLength: 40 });
    fc.assert(
      fc.property(pairs, fc.array(fc.nat(3), { minLength: 10, maxLength: 10 }), (list, groups) => {
        const graph = makeGraph(
          10,
          list.map(([a]) => a),
          list.map(([, b]) => b),
        );
        const { participation, outwardness, groupsTouched } = betweenGroups(
          withoutSelfLoops(neighbourRows(graph)),
          groups,
        );
        for (let v = 0; v < 10; v++) {
          if (groupsTouched[v] === 0) {
            expect([participation[v], outwardness[v]]).toEqual([NaN, NaN]);
            continue;
          }
          expect(participation[v]).toBeGreaterThanOrEqual(-1e-12);
          expect(participation[v]).toBeLessThanOrEqual(1 - 1 / groupsTouched[v] + 1e-12);
          expect(Math.abs(outwardness[v])).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
});
