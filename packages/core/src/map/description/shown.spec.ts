import { Condition, Shown, wholeShown } from '@pebble/contract';
import fc from 'fast-check';
import type { MapNetwork } from '../network/mapNetwork';
import { shownGraph, shownPart, within } from './shown';
import { conditionPhrase, shownPhrase } from './shownPhrase';

// A triangle 0 1 2 with a tail 2-3-4, a pair 5-6, and 7 alone.
const network: MapNetwork = {
  nodeCount: 8,
  nodes: {
    handle: ['ann', 'ben', 'cy_shop', 'dot', 'eve', 'fay', 'gus', 'hal'],
    name: ['Ann', 'Ben', '', 'Dot', 'The Shop', '', '', ''],
    inDegree: Uint32Array.of(3, 1, 2, 1, 1, 1, 1, 0),
    tone: Float64Array.of(0.5, NaN, -0.2, 0, 0.1, 0.9, -1, NaN),
    kind: ['press', 'person', 'person', '', 'person', 'press', '', 'person'],
    community: Uint32Array.of(1, 1, 1, 2, 2, 3, 3, 4),
  },
  edges: {
    source: Uint32Array.of(0, 1, 2, 2, 3, 5),
    target: Uint32Array.of(1, 2, 0, 3, 4, 6),
    weight: Float64Array.of(1, 2, 3, 1, 1, 5),
    first: Float64Array.of(10, 20, 30, 40, 50, 60),
    last: Float64Array.of(15, 25, 45, 40, 70, 60),
  },
};
const show = (part: Partial<Shown>): Shown => ({ ...wholeShown, ...part });
const where = (...conditions: Condition[]): Shown => show({ where: { joined: 'and', conditions } });
const nodes = (shown: Shown): number[] => [...shownPart(network, shown).nodes];
const condition = (one: object): Condition => Condition.parse(one);

describe('the part of a network that is shown', () => {
  it('is all of it where nothing is asked', () => {
    const { nodes: all, edges, pale } = shownPart(network, wholeShown);
    expect([all.length, edges.length, pale]).toEqual([8, 6, null]);
  });

  it('goes by a range of a column, where a missing value is outside', () => {
    expect(nodes(where(condition({ what: 'range', column: 'tone', from: 0, until: 0.5 })))).toEqual([
      0, 3, 4,
    ]);
    expect(nodes(where(condition({ what: 'range', column: 'tone', from: 0, not: true })))).toEqual([
      1, 2, 6, 7,
    ]);
    expect(nodes(where(condition({ what: 'range', column: 'gone', from: 0 })))).toEqual([]);
  });

  it('goes by values of a category, and by texts in handle or name', () => {
    expect(nodes(where(condition({ what: 'values', column: 'kind', values: ['press', ''] })))).toEqual([
      0, 3, 5, 6,
    ]);
    expect(nodes(where(condition({ what: 'named', text: 'SHOP | dot' })))).toEqual([2, 3, 4]);
  });

  it('goes by core, component, and steps from chosen nodes, along ties or against them', () => {
    expect(nodes(where(condition({ what: 'core', atLeast: 2 })))).toEqual([0, 1, 2]);
    expect(nodes(where(condition({ what: 'components', largest: 1 })))).toEqual([0, 1, 2, 3, 4]);
    const near = (way: string, steps: number) =>
      nodes(where(condition({ what: 'near', nodes: [2], steps, way })));
    expect(near('either', 1)).toEqual([0, 1, 2, 3]);
    expect(near('out', 1)).toEqual([0, 2, 3]);
    expect(near('in', 1)).toEqual([1, 2]);
    expect(near('either', 2)).toEqual([0, 1, 2, 3, 4]);
  });

  it('joins conditions by and, or by or', () => {
    const conditions = [
      condition({ what: 'values', column: 'kind', values: ['press'] }),
      condition({ what: 'core', atLeast: 2 }),
    ];
    expect(nodes(show({ where: { joined: 'and', conditions } }))).toEqual([0]);
    expect(nodes(show({ where: { joined: 'or', conditions } }))).toEqual([0, 1, 2, 5]);
  });

  it('leaves ties out by weight and time, and then nodes without ties', () => {
    const inTime = show({ period: { from: 42, until: 60 }, isolates: false });
    expect([...shownPart(network, inTime).edges]).toEqual([2, 4]);
    expect(nodes(inTime)).toEqual([0, 2, 3, 4]);
    expect(nodes(show({ atLeast: 3, isolates: false }))).toEqual([0, 2, 5, 6]);
    expect(nodes(show({ atLeast: 2, largestComponent: true }))).toEqual([0, 1, 2]);
  });

  it('keeps the rest pale where that is wanted', () => {
    const part = shownPart(network, {
      ...where(condition({ what: 'core', atLeast: 2 })),
      rest: 'pale',
    });
    expect([part.nodes.length, [...part.pale!]]).toEqual([8, [0, 0, 0, 1, 1, 1, 1, 1]]);
    expect(
      shownGraph(network, { ...where(condition({ what: 'core', atLeast: 2 })), rest: 'pale' }).graph
        .nodeCount,
    ).toBe(3);
  });

  it('never has a tie without both of its ends, nor a node that a negated filter leaves out', () => {
    const kinds = fc.constantFrom('press', 'person', '');
    fc.assert(
      fc.property(
        kinds,
        fc.boolean(),
        fc.integer({ min: 0, max: 6 }),
        fc.boolean(),
        (kind, not, atLeast, isolates) => {
          const part = shownPart(network, {
            ...where(condition({ what: 'values', column: 'kind', values: [kind], not })),
            atLeast,
            isolates,
          });
          const inside = new Set(part.nodes);
          const { source, target } = network.edges as Record<string, Uint32Array>;
          return (
            [...part.edges].every((e) => inside.has(source[e]) && inside.has(target[e])) &&
            [...part.nodes].every((v) => ((network.nodes['kind'] as string[])[v] === kind) !== not)
          );
        },
      ),
    );
  });

  it('reaches nothing from nobody', () => {
    expect(
      within(
        { nodeCount: 2, source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
        [9],
        3,
        'either',
      ),
    ).toEqual(new Uint8Array(2));
  });
});

describe('the phrase of what is shown', () => {
  it('reads as a sentence', () => {
    const conditions = [
      condition({ what: 'range', column: 'inDegree', from: 5 }),
      condition({ what: 'named', text: 'shop|cafe', not: true }),
    ];
    expect(
      shownPhrase(show({ where: { joined: 'and', conditions }, largestComponent: true, isolates: false })),
    ).toBe(
      'of the largest component, with in-degree of at least 5 and not named “shop” or “cafe”, with ties',
    );
    expect(shownPhrase(wholeShown)).toBe('');
    // Groups are called by their titles, where all of a few have one.
    const titles = { community: { '1': '#moths', '2': '#lamps' } };
    expect(shownPhrase(show({ communities: [1, 2] }), titles)).toBe('of “#moths” and “#lamps”');
    expect(shownPhrase(show({ communities: [1, 7] }), titles)).toBe('of 2 communities');
    expect(shownPhrase(show({ communities: [7] }), titles)).toBe('of community 7');
    const values = condition({ what: 'values', column: 'community', values: ['1', '7'] });
    expect(conditionPhrase(values, titles)).toBe('whose community is “#moths” or “7”');
  });

  it('says every condition', () => {
    expect(
      [
        { what: 'range', column: 'tone', from: 0, until: 1 },
        { what: 'values', column: 'kind', values: ['press'] },
        { what: 'core', atLeast: 3 },
        { what: 'components', largest: 2 },
        { what: 'near', nodes: [1], steps: 2, way: 'out' },
      ].map((one) => conditionPhrase(condition(one))),
    ).toEqual([
      'with tone from 0 to 1',
      'whose kind is “press”',
      'in the 3-core',
      'in the 2 largest components',
      'within 2 steps along ties of 1 chosen node',
    ]);
  });
});
