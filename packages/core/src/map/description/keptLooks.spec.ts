import { defaultMap, Look, MapDescription } from '@pebble/contract';
import { lookOf, SHIPPED_LOOKS, withLook } from './looks';
import type { MapNetwork } from '../network/mapNetwork';

const network: MapNetwork = {
  nodeCount: 2,
  nodes: { handle: ['a', 'b'], community: Uint32Array.of(1, 2), kind: ['x', 'y'] },
  edges: {},
};

describe('looks', () => {
  it('change how a map is drawn, and not what it says', () => {
    const before = { ...defaultMap, size: { ...defaultMap.size, column: 'betweenness' } };
    for (const { look } of SHIPPED_LOOKS) {
      expect(Look.parse(look)).toEqual(look);
      const after = MapDescription.parse(withLook(before, look, network));
      expect([after.size.column, after.colour.column, after.names.column, after.show]).toEqual([
        'betweenness',
        before.colour.column,
        before.names.column,
        before.show,
      ]);
      expect(lookOf(after)).toEqual(look);
    }
  });

  it('outline the groups that colour the map, or communities, or nothing', () => {
    const outlined = { ...lookOf(defaultMap), outlined: true };
    const by = (column: string): string | null =>
      withLook({ ...defaultMap, colour: { ...defaultMap.colour, column } }, outlined, network).regions.column;
    expect([by('kind'), by('inDegree')]).toEqual(['kind', 'community']);
    expect(
      withLook(defaultMap, outlined, { ...network, nodes: { handle: ['a'] } }).regions.column,
    ).toBeNull();
  });

  it('have names and say what they are for', () => {
    expect(new Set(SHIPPED_LOOKS.map(({ name }) => name)).size).toBe(SHIPPED_LOOKS.length);
    for (const { says } of SHIPPED_LOOKS) expect(says).toMatch(/\.$/);
  });
});
