import { Condition, defaultMap, type MapDescription } from '@pebble/contract';
import { withColumns } from './carriedColumns';

const columns = {
  given: new Set(['messages', 'Role']),
  anew: new Set(['inDegree', 'betweenness', 'community']),
};
const carried = (change: Partial<MapDescription>): MapDescription =>
  withColumns({ ...defaultMap, ...change }, columns, defaultMap);
const { colour, regions, legend, size, names, shape, show } = defaultMap;

describe('a map for a network that lacks some columns', () => {
  it('stays as it is where it has them', () => {
    const role: Partial<MapDescription> = {
      colour: { ...colour, column: 'Role', chosen: { press: '#112233' } },
      legend: { ...legend, names: { press: 'The press' } },
      regions: { ...regions, column: 'Role', titles: { press: 'Press' } },
      shape: { ...shape, column: 'Role', letters: 'initials', rim: { column: 'Role', value: 'press' } },
    };
    expect(carried(role)).toEqual({ ...defaultMap, ...role });
  });

  it('goes by those of a first map, or by nothing, where they are gone', () => {
    const map = carried({
      size: { ...size, column: 'pageRank', largest: 40 },
      names: { ...names, column: 'closeness' },
      colour: {
        ...colour,
        column: 'Leiden',
        chosen: { 1: '#112233' },
        unsure: { column: 'Leiden, sure', below: 0.5, how: 'pale' },
      },
      shape: { ...shape, column: 'Leiden', letters: 'Leiden', rim: { column: 'pageRank', value: null } },
      regions: { ...regions, column: 'Leiden', titles: { 1: 'Harbour' } },
    });
    expect(map.size).toEqual({ ...size, largest: 40 });
    expect(map.names.column).toBe('betweenness');
    expect(map.colour).toEqual(colour);
    expect(map.shape).toEqual(shape);
    expect(map.regions).toEqual(regions);
  });

  it('does not give the titles and colours of groups to other groups of the same number', () => {
    const map = carried({
      colour: { ...colour, chosen: { 3: '#112233' } },
      legend: { ...legend, names: { 3: 'Harbour' } },
      regions: { ...regions, column: 'community', titles: { 3: 'Harbour' } },
    });
    expect([map.colour.chosen, map.legend.names, map.regions.titles]).toEqual([{}, {}, {}]);
    expect([map.colour.column, map.regions.column]).toEqual(['community', 'community']);
  });

  it('leaves out conditions on what is gone, or on numbers of groups', () => {
    const conditions = [
      { what: 'range', column: 'pageRank', from: 0.1 },
      { what: 'range', column: 'inDegree', from: 3 },
      { what: 'values', column: 'community', values: ['1'] },
      { what: 'values', column: 'Role', values: ['press'] },
      { what: 'named', text: 'lamp' },
    ].map((one) => Condition.parse(one));
    const map = carried({ show: { ...show, where: { joined: 'and', conditions } } });
    expect(map.show.where.conditions).toEqual([conditions[1], conditions[3], conditions[4]]);
  });
});
