import { LegendPart, type MapDescription } from '@pebble/contract';
import { marginFor, type Margin, type Size } from '@pebble/core';

/** Lower than this, in pixels, a map has no room for a legend; the figure has it all the same. */
const LOW = 260;
/** Above stand the choice of networks and the search, below the buttons. */
const USUAL = { top: 62, bottom: 56 };
const NARROW: Margin = { left: 16, right: 16, top: 10, bottom: 40 };

/** A map as it is drawn on the screen: without a legend where the screen is low, or the page is shown at twice its size. */
export function onScreen(description: MapDescription, { height }: Size): MapDescription {
  if (height >= LOW) return description;
  return { ...description, legend: { ...description.legend, without: [...LegendPart.options] } };
}

/** The room at the edges of the screen. @param covered from below */
export function screenMargin({ legend }: MapDescription, { height }: Size, covered: number): Margin {
  return height < LOW
    ? { ...NARROW, bottom: NARROW.bottom + covered }
    : marginFor(legend.corner, { ...USUAL, bottom: USUAL.bottom + covered });
}
