import { neighbourRows } from '../graph/csr';
import { makeGraph } from '../graph/graph';
import { transferPositions } from './transferPositions';

describe('transferPositions', () => {
  // c is tied to a and b, d to c, e to none.
  const rows = neighbourRows(makeGraph(5, [0, 1, 2], [2, 2, 3]));
  const names = ['a', 'b', 'c', 'd', 'e'];
  const places = new Map([
    ['a', [0, 0]],
    ['b', [100, 0]],
    ['elsewhere', [-50, 300]],
  ] as [string, [number, number]][]);
  const { x, y, common } = transferPositions(rows, names, places);

  it('puts nodes of the same name at the same place', () => {
    expect([x[0], y[0], x[1], y[1]]).toEqual([0, 0, 100, 0]);
    expect(common).toBe(2);
  });

  it('puts others round their neighbours, in turn', () => {
    expect(Math.hypot(x[2] - 50, y[2])).toBeLessThan(35);
    expect(Math.hypot(x[3] - x[2], y[3] - y[2])).toBeLessThan(35);
    expect([x[3], y[3]]).not.toEqual([x[2], y[2]]);
  });

  it('puts what is tied to nothing below all', () => {
    expect(x[4]).toBe(-50);
    expect(y[4]).toBeGreaterThan(300);
  });

  it('has a place for all where the two have nothing in common', () => {
    const apart = transferPositions(rows, names, new Map());
    expect(apart.common).toBe(0);
    expect([...apart.x, ...apart.y].every(Number.isFinite)).toBe(true);
  });
});
