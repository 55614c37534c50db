import { defaultMap, type MapDescription } from '@pebble/contract';

/** Sized, named and perhaps coloured by other columns than usual. */
export function mapBy(
  size: string,
  names: string = defaultMap.names.column,
  colour?: string,
): MapDescription {
  return {
    ...defaultMap,
    size: { ...defaultMap.size, column: size },
    names: { ...defaultMap.names, column: names },
    ...(colour === undefined ? {} : { colour: { ...defaultMap.colour, column: colour } }),
  };
}

/** As usual; without direction nobody has ties in and out. */
export const usualMap = (directed: boolean): MapDescription => (directed ? defaultMap : mapBy('degree'));

/** How a network of two sorts of nodes is shown at first. */
export const twoModeMap: MapDescription = {
  ...mapBy('degree', 'degree', 'mode'),
  // Colour alone tells some people nothing.
  shape: { ...defaultMap.shape, column: 'mode' },
};
