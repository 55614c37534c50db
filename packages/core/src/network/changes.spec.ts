import type { NetworkChange } from '@pebble/contract';
import fc from 'fast-check';
import { BY_HAND, changeNetwork, TAKEN_OUT } from './changes';
import { changesPhrase, plannedPhrase } from './changeWords';
import { numbersOf, textsOf, type TableColumns } from './tables';

/** a → b (2), b → c (3), c → a (1), a → d (4), b → a (5). */
const nodes: TableColumns = {
  id: Uint32Array.of(10, 11, 12, 13),
  handle: ['a', 'b', 'c', 'd'],
  messages: Uint32Array.of(1, 2, 3, 4),
  side: ['left', 'left', 'right', 'right'],
  score: Float64Array.of(0.1, 0.2, 0.3, 0.4),
};
const edges: TableColumns = {
  source: Uint32Array.of(0, 1, 2, 0, 1),
  target: Uint32Array.of(1, 2, 0, 3, 0),
  weight: Float64Array.of(2, 3, 1, 4, 5),
  replies: Float64Array.of(2, 1, 1, 4, 5),
  days: Float64Array.of(1, 2, 1, 3, 2),
  first: Float64Array.of(100, 200, 300, 400, 500),
  last: Float64Array.of(150, 250, 350, 450, 550),
};

function change(...changes: NetworkChange[]) {
  const made = changeNetwork(nodes, edges, true, changes);
  const handle = textsOf(made.nodes, 'handle');
  const source = numbersOf(made.edges, 'source');
  const target = numbersOf(made.edges, 'target');
  const weight = numbersOf(made.edges, 'weight');
  const ties = Array.from(source, (a, e) => `${handle[a]} ${handle[target[e]]} ${weight[e]}`);
  return { ...made, handle, ties };
}

describe('changes by hand', () => {
  it('take out nodes with their ties', () => {
    const { handle, ties, done, became } = change({ what: 'without-nodes', nodes: [0] });
    expect(handle).toEqual(['b', 'c', 'd']);
    expect(ties).toEqual(['b c 3']);
    expect([...became]).toEqual([TAKEN_OUT, 0, 1, 2]);
    expect(changesPhrase(done)).toBe('1 node taken out with 4 ties');
  });

  it('take out single ties, each direction by itself', () => {
    const { ties } = change({ what: 'without-ties', ties: [{ source: 0, target: 1 }] });
    expect(ties).toEqual(['a d 4', 'b a 5', 'b c 3', 'c a 1']);
  });

  it('add nodes and ties, which say so', () => {
    const made = change(
      { what: 'new-node', name: 'e' },
      { what: 'new-tie', source: 4, target: 0, weight: 7 },
      { what: 'new-tie', source: 0, target: 1, weight: 1 },
    );
    expect(made.handle).toEqual(['a', 'b', 'c', 'd', 'e']);
    expect(made.ties).toContain('e a 7');
    expect(made.ties).toContain('a b 3');
    expect(textsOf(made.nodes, BY_HAND)).toEqual(['', '', '', '', 'added']);
    expect(textsOf(made.edges, BY_HAND)).toEqual(['made stronger', '', '', '', '', 'added']);
    expect(numbersOf(made.nodes, 'id')[4]).toBe(14);
    expect(numbersOf(made.nodes, 'score')[4]).toBeNaN();
    expect([...made.was]).toEqual([0, 1, 2, 3, -1]);
    expect(changesPhrase(made.done)).toBe('1 node added, 1 tie added and 1 tie made stronger');
  });

  it('merge nodes: ties are added up, times stretched, what cannot be added has no value', () => {
    const made = change({ what: 'merged', nodes: [1, 2], into: 1 });
    expect(made.handle).toEqual(['a', 'b', 'd']);
    expect(made.ties).toEqual(['a b 2', 'a d 4', 'b a 6']);
    expect(numbersOf(made.nodes, 'messages')[1]).toBe(5);
    expect(textsOf(made.nodes, 'side')[1]).toBe('left');
    const at = 2;
    expect(numbersOf(made.edges, 'replies')[at]).toBe(6);
    expect(numbersOf(made.edges, 'days')[at]).toBeNaN();
    expect([numbersOf(made.edges, 'first')[at], numbersOf(made.edges, 'last')[at]]).toEqual([300, 550]);
    expect([...made.became]).toEqual([0, 1, 1, 2]);
    expect(changesPhrase(made.done)).toBe(
      '1 node merged into others (1 tie became one with another and 1 tie within them left out)',
    );
  });

  it('make one tie of both directions of an undirected network', () => {
    const ties = {
      source: Uint32Array.of(0, 1),
      target: Uint32Array.of(2, 2),
      weight: Float64Array.of(1, 2),
    };
    const made = changeNetwork(nodes, ties, false, [
      { what: 'new-tie', source: 2, target: 0, weight: 4 },
      { what: 'merged', nodes: [0, 1], into: 1 },
    ]);
    expect([...numbersOf(made.edges, 'source')]).toEqual([0]);
    expect([...numbersOf(made.edges, 'weight')]).toEqual([7]);
  });

  it('keep a self-tie of a merged node', () => {
    const loop = { source: Uint32Array.of(2), target: Uint32Array.of(2), weight: Float64Array.of(3) };
    const made = changeNetwork(nodes, loop, true, [{ what: 'merged', nodes: [2], into: 0 }]);
    expect([...numbersOf(made.edges, 'weight')]).toEqual([3]);
    expect(made.done.tiesWithin).toBe(0);
  });

  it('refuse what is not there, and say so', () => {
    const out: NetworkChange = { what: 'without-nodes', nodes: [1] };
    expect(() => change(out, out)).toThrow('“b” was taken out before.');
    expect(() => change({ what: 'without-nodes', nodes: [9] })).toThrow('There is no node 9.');
    expect(() => change({ what: 'without-ties', ties: [{ source: 3, target: 0 }] })).toThrow(
      'There is no tie between “d” and “a”.',
    );
    expect(() => change({ what: 'merged', nodes: [1], into: 1 })).toThrow('at least two nodes');
  });

  it('are said in words when they are planned', () => {
    const say = (change: NetworkChange, directed = true): string =>
      plannedPhrase(change, (node) => 'abcdefgh'[node], directed);
    expect(say({ what: 'without-nodes', nodes: [0, 1] })).toBe('Take out a and b');
    expect(say({ what: 'without-nodes', nodes: [0, 1, 2, 3] })).toBe('Take out 4 nodes');
    expect(say({ what: 'without-ties', ties: [{ source: 0, target: 1 }] })).toBe('Take out the tie a → b');
    expect(say({ what: 'new-tie', source: 0, target: 1, weight: 2 }, false)).toBe('Tie a – b, weight 2');
    expect(say({ what: 'merged', nodes: [0, 1, 2], into: 2 })).toBe('Merge a and b into c');
    expect(say({ what: 'new-node', name: 'Lamp' })).toBe('Add Lamp');
  });

  it('keep the sum of weights but for what they say was left out or added', () => {
    const tie = fc.record({ source: fc.nat(7), target: fc.nat(7), weight: fc.integer({ min: 1, max: 9 }) });
    const property = fc.property(fc.array(tie), fc.nat(7), fc.nat(7), (all, a, b) => {
      fc.pre(a !== b);
      const once = new Map(all.map((one) => [`${one.source} ${one.target}`, one]));
      const ties = [...once.values()];
      const table = {
        source: Uint32Array.from(ties, ({ source }) => source),
        target: Uint32Array.from(ties, ({ target }) => target),
        weight: Float64Array.from(ties, ({ weight }) => weight),
      };
      const eight = { id: Uint32Array.from('01234567', Number), handle: [...'abcdefgh'] };
      const made = changeNetwork(eight, table, true, [{ what: 'merged', nodes: [a], into: b }]);
      const within = ties.filter(
        ({ source, target }) => source !== target && [a, b].includes(source) && [a, b].includes(target),
      );
      const sum = (of: readonly { weight: number }[]): number => of.reduce((s, { weight }) => s + weight, 0);
      const left = Array.from(numbersOf(made.edges, 'weight')).reduce((s, w) => s + w, 0);
      expect(left).toBe(sum(ties) - sum(within));
      expect(made.done.tiesWithin).toBe(within.length);
    });
    fc.assert(property, { seed: 6, numRuns: 100 });
  });
});
