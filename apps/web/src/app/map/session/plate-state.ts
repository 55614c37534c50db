import type { PlateMap } from '@pebble/contract';
import type { Selection } from './with-selection';

/** What is selected, as a plate keeps it. */
export function plateSelection(selection: Selection | null): PlateMap['selection'] {
  return selection?.what === 'nodes' ? { what: 'nodes', nodes: [...selection.nodes] } : selection;
}
