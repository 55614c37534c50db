import { CATEGORY_COLOURS, FURTHER_COLOURS, OTHER_COLOUR } from '@pebble/core';

const COLOURS = [...CATEGORY_COLOURS, ...FURTHER_COLOURS];

/** The colour of a group by its place, as on maps: 0 is the first. */
export function groupColour(place: number): string {
  return COLOURS[place] ?? OTHER_COLOUR;
}
