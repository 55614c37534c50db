import fc from 'fast-check';
import { neighbourRows } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { degreeBySort, redundancy, twoModeDensity } from './twoMode';

// People 0, 1, 2 at meetings 3 (all), 4 (0 and 1) and 5 (2 alone).
const rows = neighbourRows(makeGraph(6, [0, 1, 2, 0, 1, 2], [3, 3, 3, 4, 4, 5]));
const sort = ['person', 'person', 'person', 'meeting', 'meeting', 'meeting'];

describe('redundancy (Latapy, Magnien & Del Vecchio 2008)', () => {
  it('is the share of pairs of partners that meet elsewhere too, worked by hand', () => {
    // Of the three pairs at meeting 3 one meets at 4 too; the pair of meeting 4 meets at 3 too; 0 and 1 bind 3 and 4 alike.
    expect([...redundancy(rows)!].map((value) => +value.toFixed(4))).toEqual([1, 1, 0, 0.3333, 1, NaN]);
  });

  it('is what going through all pairs gives', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.nat(5), fc.nat(5)), { selector: String, maxLength: 20 }),
        (ties) => {
          const any = neighbourRows(
            makeGraph(
              12,
              ties.map(([a]) => a),
              ties.map(([, b]) => 6 + b),
            ),
          );
          const around = (v: number): number[] => [
            ...any.neighbour.subarray(any.offset[v], any.offset[v + 1]),
          ];
          const expected = Array.from({ length: 12 }, (_, v) => {
            const partners = around(v);
            let met = 0;
            let pairs = 0;
            for (const a of partners)
              for (const b of partners.filter((one) => one > a)) {
                pairs++;
                if (around(a).some((w) => w !== v && around(b).includes(w))) met++;
              }
            return pairs > 0 ? met / pairs : NaN;
          });
          expect([...redundancy(any)!].map((value) => +value.toFixed(9))).toEqual(
            expected.map((value) => +value.toFixed(9)),
          );
        },
      ),
    );
  });
});

describe('measures by sort (Borgatti & Everett 1997)', () => {
  it('divide by what the other sort has', () => {
    expect([...degreeBySort(rows, sort)].map((value) => +value.toFixed(4))).toEqual([
      0.6667, 0.6667, 0.6667, 1, 0.6667, 0.3333,
    ]);
    expect(twoModeDensity(rows, sort)).toBeCloseTo(6 / 9, 12);
    expect(twoModeDensity(neighbourRows(makeGraph(2, [], [])), ['a', 'a'])).toBeNaN();
  });
});
