import { defaultMap, type MapDescription } from '@pebble/contract';
import type { MapNetwork } from '../network/mapNetwork';
import { prepareMap } from '../scene/prepare';
import { figureText } from './figureText';

/** Two groups, a path of three and a pair, with one tie between them. */
const network: MapNetwork = {
  nodeCount: 6,
  directed: true,
  titles: { community: { '1': 'Bees', '2': 'Lamps' } },
  nodes: {
    handle: ['ann', 'ben', 'cem', 'dora', 'eli', 'fay'],
    messages: Uint32Array.of(1, 1, 1, 1, 1, 1),
    community: Uint32Array.of(1, 1, 1, 2, 2, 3),
    inDegree: Uint32Array.of(4, 2, 1, 1, 0, 0),
    betweenness: new Float64Array(6),
  },
  edges: {
    source: Uint32Array.of(1, 2, 4, 3, 0),
    target: Uint32Array.of(0, 1, 3, 0, 0),
    weight: Float64Array.of(4, 2, 1, 3, 9),
  },
};
const told = (change: Partial<MapDescription> = {}, of: MapNetwork = network) =>
  figureText(
    { weave: { what: 'accounts' } as never, directed: true },
    prepareMap(of, { ...defaultMap, ...change }),
    'Accounts tied when one replies to another.',
  );

describe('what is told of a figure to those who cannot see it', () => {
  it('is what it is, and what can be read from it: groups by their titles, what goes between them, who leads', () => {
    const { short, long } = told();
    expect(short).toBe(
      'Map of a network: 6 accounts and 5 ties, in 2 groups by community, the largest “Bees” (3).',
    );
    expect(long).toBe(
      [
        'Accounts tied when one replies to another.',
        'Drawn are 6 accounts as discs and 5 ties between them, each from one to another.',
        'Colours are groups by community: “Bees” (3), “Lamps” (2); 1 is of others.',
        // 7 of 10, the self-tie aside.
        '70 % of the weight of all ties stays within these groups; between groups most goes between “Bees” and “Lamps”.',
        'The largest by in-degree are ann (4), ben (2), cem (1), dora (1), eli (0).',
      ].join(' '),
    );
  });

  it('tells the ends of a ramp, and nothing of what is not there', () => {
    const { short, long } = told({ colour: { ...defaultMap.colour, column: 'inDegree' } });
    expect(short).toBe('Map of a network: 6 accounts and 5 ties.');
    expect(long).toContain('Colour is in-degree, from 0 to 4.');
    expect(long).not.toContain('groups');
    const empty = {
      ...network,
      edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
    };
    expect(told({}, empty).long).not.toContain('of the weight');
    const alike = { ...network, nodes: { ...network.nodes, inDegree: new Uint32Array(6) } };
    expect(told({}, alike).long).not.toContain('The largest by');
  });

  it('has the groups that the legend leaves away', () => {
    const without = { ...defaultMap.legend, without: ['colour' as const] };
    expect(told({ legend: without }).short).toContain('in 2 groups');
  });
});
