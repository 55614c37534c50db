import type { PlateMap, PlateView } from '@pebble/contract';
import type { Size, View } from '@pebble/core';
import type { Selection } from './with-selection';

/** What is selected, as a plate keeps it. */
export function plateSelection(selection: Selection | null): PlateMap['selection'] {
  return selection?.what === 'nodes' ? { what: 'nodes', nodes: [...selection.nodes] } : selection;
}

/** The same part of the map on a screen of another size: all that was seen is seen, in the middle. */
export function seenOn({ width, height }: Size, view: PlateView): View {
  const by = Math.min(width / view.width, height / view.height);
  return {
    scale: view.scale * by,
    x: width / 2 + (view.x - view.width / 2) * by,
    y: height / 2 + (view.y - view.height / 2) * by,
  };
}
