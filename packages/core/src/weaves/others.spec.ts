import { FollowWeave, InStepWeave } from '@pebble/contract';
import { messagesOfTie } from './common/evidence';
import { audiences, weaveFollows } from './follows/make';
import { contract } from './groups/make';
import { poissonTail, weaveInStep } from './inStep/make';

describe('weaveFollows', () => {
  const rows = { follower: Uint32Array.of(5, 6, 6, 1), followed: Uint32Array.of(1, 1, 2, 2) };

  it('ties followers to whom they follow', () => {
    const woven = weaveFollows(rows, FollowWeave.parse({ what: 'follows' }));
    expect([...woven.id]).toEqual([1, 2, 5, 6]);
    expect([...woven.source].map((a, e) => `${woven.id[a]} ${woven.id[woven.target[e]]}`)).toEqual([
      '1 2',
      '5 1',
      '6 1',
      '6 2',
    ]);
    expect(audiences(woven, (account) => `list ${account}`)).toEqual([
      'listed account',
      'listed account',
      'list 1',
      'list 1 + list 2',
    ]);
  });

  it('keeps only those who follow several, and the listed accounts', () => {
    const woven = weaveFollows(rows, FollowWeave.parse({ what: 'follows', listsAtLeast: 2 }));
    expect([[...woven.id], woven.source.length, woven.droppedBelowThreshold]).toEqual([[1, 2, 6], 2, 2]);
  });
});

describe('weaveInStep', () => {
  const hour = 3_600_000;
  type Row = readonly [message: number, author: number, thing: number, time: number];
  const weave = (rows: readonly Row[], change: object = {}) => {
    const column = (i: number): number[] => rows.map((row) => row[i]);
    return weaveInStep(
      { count: rows.length, message: column(0), author: column(1), thing: column(2), time: column(3) },
      InStepWeave.parse({ what: 'in-step', seconds: 60, ...change }),
    );
  };
  const rows: readonly Row[] = [
    [1, 7, 0, hour],
    [2, 8, 0, hour + 30_000],
    [3, 9, 0, 5 * hour],
    [4, 7, 1, 10 * hour],
    [5, 8, 1, 10 * hour + 59_000],
    [6, 8, 1, 10 * hour + 61_000],
    [7, 7, 2, 99 * hour],
  ];

  it('ties accounts that posted the same within the seconds, by how many different things', () => {
    const woven = weave(rows);
    expect([[...woven.id], [...woven.source], [...woven.target], [...woven.weight]]).toEqual([
      [7, 8],
      [0],
      [1],
      [2],
    ]);
    expect(messagesOfTie(woven.evidence!(), 0, 1, 60_000)).toEqual([1, 2, 4, 5]);
  });

  it('says how likely it is by chance: Poisson with the sum of n(a) n(b) 2 S / T (worked by hand)', () => {
    const period = { from: 0, until: 100 * hour };
    const mean = (1 * 1 * 2 * 60_000) / (100 * hour) + (1 * 2 * 2 * 60_000) / (100 * hour);
    expect(weave(rows, period).columns['chance'][0]).toBeCloseTo(1 - Math.exp(-mean) * (1 + mean), 12);
  });

  it('needs as many different things as are asked for', () => {
    const woven = weave(rows, { atLeast: 3 });
    expect([woven.id.length, woven.droppedBelowThreshold]).toEqual([0, 1]);
  });

  it('has a tail that is right for small and large numbers (values of the distribution, computed by its sum)', () => {
    expect(poissonTail(0, 3)).toBe(1);
    expect(poissonTail(1, 0)).toBe(0);
    expect(poissonTail(3, 2)).toBeCloseTo(1 - Math.exp(-2) * (1 + 2 + 2), 12);
    expect(poissonTail(20, 0.01)).toBeGreaterThan(0);
    expect(poissonTail(20, 0.01)).toBeLessThan(1e-55);
  });
});

describe('contract', () => {
  const graph = {
    source: Uint32Array.of(0, 1, 2, 3),
    target: Uint32Array.of(1, 2, 0, 3),
    weight: Float64Array.of(1, 2, 4, 8),
  };
  const labels = ['a', 'b', 'c', 'd'];
  const groups = ['x', 'x', 'y', ''];

  it('adds up ties between groups, and those within as self-ties', () => {
    const made = contract(graph, labels, groups, true, { open: [], atLeast: 0 });
    expect(made.names).toEqual(['x', 'y', 'd']);
    expect([...made.size]).toEqual([2, 1, 1]);
    expect([...made.source].map((s, e) => [s, made.target[e], made.weight[e]])).toEqual([
      [0, 0, 1],
      [0, 1, 2],
      [1, 0, 4],
      [2, 2, 8],
    ]);
  });

  it('draws both directions together where the network has none, and drops weak ties', () => {
    const made = contract(graph, labels, groups, false, { open: [], atLeast: 5 });
    expect([...made.weight]).toEqual([6, 8]);
    expect(made.dropped).toBe(1);
  });

  it('keeps the nodes of open groups single', () => {
    expect(contract(graph, labels, groups, true, { open: ['x'], atLeast: 0 }).names).toEqual([
      'a',
      'b',
      'y',
      'd',
    ]);
  });
});
