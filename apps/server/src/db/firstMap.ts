import { defaultMap, type MapDescription, type Weave } from '@pebble/contract';

/** How a new network is shown at first. */
export function firstMap(weave: Weave, directed: boolean): MapDescription {
  const byDegree = { ...defaultMap, size: { ...defaultMap.size, column: 'degree' } };
  switch (weave.what) {
    case 'two-mode':
      return { ...byDegree, colour: { column: 'mode' }, names: { ...defaultMap.names, column: 'degree' } };
    case 'follows':
      return {
        ...defaultMap,
        colour: { column: 'follows' },
        names: { ...defaultMap.names, column: 'inDegree' },
      };
    case 'together':
      return {
        ...defaultMap,
        size: { ...defaultMap.size, column: 'messages' },
        names: { ...defaultMap.names, column: 'messages' },
      };
    case 'groups':
      return {
        ...defaultMap,
        size: { ...defaultMap.size, column: 'members' },
        names: { ...defaultMap.names, column: 'members' },
      };
    default:
      return directed ? defaultMap : byDegree;
  }
}
