import { networkDifferences, type ComparedNetwork } from './differences';

const network = (
  groups: Record<string, readonly string[]>,
  value: (name: string) => number,
): ComparedNetwork => {
  const entries = Object.entries(groups);
  const keys = entries.flatMap(([, names]) => names);
  return {
    network: 'n',
    keys,
    names: keys.map((key) => `@${key}`),
    edges: 7,
    group: entries.flatMap(([, names], g) => names.map(() => g)),
    measures: { modularity: keys.length / 100, isolates: 2, exact: true },
    titleOf: (group) => entries[group][0],
    by: 'degree',
    rankedBy: keys.map(value),
  };
};

describe('what differs between two networks of one routine', () => {
  const before = network(
    { moths: ['a', 'b', 'c', 'd'], boats: ['e', 'f', 'g'], shops: ['h', 'i', 'j'] },
    (name) => 'jihgfedcba'.indexOf(name),
  );
  const now = network(
    { moths: ['a', 'b', 'c', 'd', 'x', 'y'], 'boats and shops': ['e', 'f', 'g', 'h', 'i'], alone: ['z'] },
    (name) => ({ x: 100, a: 50, b: 50 })[name] ?? 1,
  );
  const found = networkDifferences('network', before, now);

  it('is who came and who is gone, the highest first', () => {
    expect(found.came).toEqual({ count: 3, first: ['@x', '@y', '@z'] });
    expect(found.gone).toEqual({ count: 1, first: ['@j'] });
    expect(found.now).toEqual({ network: 'n', nodes: 12, edges: 7, groups: 2 });
  });

  it('is what was measured of both', () => {
    expect(found.measures).toEqual([
      { title: 'nodes without a tie', before: 2, now: 2 },
      { title: 'modularity', before: 0.1, now: 0.12 },
    ]);
  });

  it('is what became of groups', () => {
    expect(found.groups).toEqual([
      { title: 'moths', what: 'grows from 4 to 6' },
      { title: 'boats and shops', what: expect.stringMatching(/^grows from 3 to 5/) as string },
      { title: 'shops', what: 'goes into boats and shops' },
    ]);
  });

  it('is the rank of the first ones; those with one value share the best rank', () => {
    expect(found.ranks.slice(0, 4)).toEqual([
      { name: '@x', now: 1, before: null },
      { name: '@a', now: 2, before: 1 },
      { name: '@b', now: 2, before: 2 },
      { name: '@c', now: 4, before: 3 },
    ]);
    expect(found.ranks).toHaveLength(10);
  });

  it('is how far groupings agree over the nodes of both: 1 where they are the same, whatever their numbers', () => {
    expect(networkDifferences('n', before, before).agreement).toBe(1);
    // Hubert & Arabie (1985) over 9 nodes in 4 + 3 + 2 and 4 + 5: 9 pairs together in both, 10 and 16 in either, of 36.
    const [both, one, other, pairs] = [10, 10, 16, 36];
    const expected = (one * other) / pairs;
    expect(found.agreement).toBeCloseTo((both - expected) / ((one + other) / 2 - expected), 12);
    const apart = networkDifferences(
      'n',
      before,
      network({ new: ['q', 'r'] }, () => 1),
    );
    expect(apart.agreement).toBeNull();
  });
});
