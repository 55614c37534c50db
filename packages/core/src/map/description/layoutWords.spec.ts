import { defaultMap, LayoutMethod, LayoutSettings } from '@pebble/contract';
import { layoutData } from './layoutData';
import { LAYOUTS } from '../../layout/kinds';
import { layoutPhrase, layoutSentence } from './layoutWords';
import type { MapNetwork } from '../network/mapNetwork';

const settings = (part: object): LayoutSettings => LayoutSettings.parse(part);

describe('the words of arrangements', () => {
  it('are there for each, with what it is good for', () => {
    expect(LAYOUTS.map(({ method }) => method).sort()).toEqual([...LayoutMethod.options].sort());
    for (const { says, source } of LAYOUTS) {
      expect(says).toMatch(/\.$/);
      expect(source.length).toBeGreaterThan(5);
    }
  });

  it('say in the caption what it goes by', () => {
    expect(layoutPhrase(settings({}))).toBe('by attraction');
    expect(layoutPhrase(settings({ method: 'rings', column: 'inDegree' }))).toBe('in rings by in-degree');
    expect(layoutPhrase(settings({ method: 'axes', column: 'degree', other: 'betweenness' }))).toBe(
      'by two axes, degree across and betweenness up',
    );
    expect(layoutPhrase(settings({ method: 'islands' }))).toBe('as islands');
  });

  it('say in the methods text the source, the seed and what was done afterwards', () => {
    expect(layoutSentence(settings({ seed: 7 }), 320)).toBe(
      'by attraction (Noack 2009; Jacomy et al. 2014; seed 7; 320 iterations); overlaps were removed, small components packed round the largest, isolates set apart below',
    );
    expect(
      layoutSentence(
        settings({
          apart: 'far',
          weights: 'none',
          hubs: 'rim',
          gravity: 0.04,
          repulsion: 20,
          separate: false,
          isolates: 'among',
        }),
        null,
      ),
    ).toBe(
      'by attraction (Noack 2009; Jacomy et al. 2014; seed 1; communities pulled far apart; weights of ties left out; nodes with many ties pushed to the rim; pull towards the middle 0.04; push between nodes 20); small components packed round the largest, isolates set among the rest',
    );
    // Nothing is left to chance in rows, and isolates stand among the others.
    expect(layoutSentence(settings({ method: 'grid', column: 'degree' }), 1)).toBe(
      'in rows by degree (by value); overlaps were removed',
    );
    // Nothing is moved apart in columns, or from its given place.
    expect(layoutSentence(settings({ method: 'columns' }), 1)).toBe(
      'in two columns (Sugiyama, Tagawa & Toda 1981); isolates set apart below',
    );
    expect(layoutSentence(settings({ method: 'given' }), 1)).toBe(
      'at given places, degree and degree (by the values of two columns)',
    );
    // Every component is arranged by itself.
    expect(layoutSentence(settings({ method: 'stress' }), 40)).toContain('small components packed');
  });
});

describe('what an arrangement is told of the nodes', () => {
  const network: MapNetwork = {
    nodeCount: 3,
    nodes: {
      handle: ['a', 'b', '#c'],
      mode: ['account', 'account', 'hashtag'],
      kind: ['x', 'x', 'y'],
      degree: Uint32Array.of(1, 1, 2),
    },
    edges: { source: Uint32Array.of(0, 1), target: Uint32Array.of(2, 2), weight: Float64Array.of(1, 1) },
  };
  const colour = (column: string) => ({
    colour: { ...defaultMap.colour, column },
  });

  it('are the columns that it goes by, groups, and sorts with sources on the left', () => {
    const found = layoutData(network, colour('kind'), settings({ column: 'degree', other: 'kind' }));
    expect([...Array.from(found.first!)]).toEqual([1, 1, 2]);
    expect([...Array.from(found.second!)]).toEqual([0, 0, 1]);
    expect([...found.groups!]).toEqual([0, 0, 1]);
    expect([...found.sides!]).toEqual([0, 0, 1]);
  });

  it('are groups of the asked column before those of the colour, and none where there are none', () => {
    const by = (column: string | null, coloured: string) =>
      layoutData(network, colour(coloured), settings({ column })).groups;
    expect([...by('mode', 'kind')!]).toEqual([0, 0, 1]);
    expect(by(null, 'degree')).toBeNull();
  });
});
