import { readableLeast } from '@pebble/core';
import { defaultMap, type AddressKind, type MapDescription, type Weave } from '@pebble/contract';

/** Sized, named and perhaps coloured by other columns than usual. */
function shown(size: string, names: string = defaultMap.names.column, colour?: string): MapDescription {
  return {
    ...defaultMap,
    size: { ...defaultMap.size, column: size },
    names: { ...defaultMap.names, column: names },
    ...(colour === undefined ? {} : { colour: { ...defaultMap.colour, column: colour } }),
  };
}

/** How a network of two sorts of nodes is shown at first. */
export const twoModeMap: MapDescription = {
  ...shown('degree', 'degree', 'mode'),
  // Colour alone tells some people nothing.
  shape: { ...defaultMap.shape, column: 'mode' },
};

/** Titles are longer than handles: there are fewer of them, in two lines. */
function withLongNames(map: MapDescription): MapDescription {
  return { ...map, names: { ...map.names, count: 15, length: 'two lines' } };
}

/** Ways in which emails address accounts, whose names are addresses. */
const BY_MAIL: ReadonlySet<AddressKind> = new Set(['to', 'cc', 'bcc']);

/** Addresses are longer than handles, and cannot be broken: there are fewer of them. */
function withAddresses(map: MapDescription): MapDescription {
  return { ...map, names: { ...map.names, count: 12 } };
}

/** The strongest ties of what goes together often: of a dense network all of them would hide each other. The caption says so. */
export function withReadableTies(
  map: MapDescription,
  weave: Weave,
  weight: ArrayLike<number>,
  nodes: number,
): MapDescription {
  if (weave.what !== 'together' && weave.what !== 'shared' && weave.what !== 'projection') return map;
  return { ...map, show: { ...map.show, atLeast: readableLeast(weight, nodes) } };
}

/** How a new network is shown at first; `weave` is null for one from a file. */
export function firstMap(weave: Weave | null, directed: boolean): MapDescription {
  switch (weave?.what) {
    case 'two-mode':
      return twoModeMap;
    case 'projection':
      return shown('partners', 'partners');
    case 'follows':
      if (weave.sorts === 'two') return twoModeMap;
      return shown(directed ? 'inDegree' : 'degree', directed ? 'inDegree' : 'degree', 'follows');
    case 'together':
      return weave.things === 'item'
        ? withLongNames(shown('messages', 'messages'))
        : shown('messages', 'messages');
    case 'groups':
      return shown('members', 'members', 'group');
    case 'accounts': {
      const map = directed ? defaultMap : shown('degree');
      return weave.kinds.some((kind) => BY_MAIL.has(kind)) ? withAddresses(map) : map;
    }
    default:
      return directed ? defaultMap : shown('degree');
  }
}
