import type { MapDescription, NetworkChange } from '@pebble/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

export type Place = readonly [x: number, y: number];

export const MapActions = createActionGroup({
  source: 'Map',
  events: {
    Opened: props<{ network: string; description: MapDescription }>(),
    'Description Changed': props<{ description: MapDescription }>(),
    /** Hands put nodes to places, one for each. */
    'Nodes Moved': props<{ nodes: readonly number[]; to: readonly Place[] }>(),
    'First Arranged': props<{ arrangement: number }>(),
    /** Another arrangement lies under the map; with `kept`, what hands had moved stays where it was. */
    Arranged: props<{ before: number; after: number; kept: boolean }>(),
    /** What is to be changed in the network, all of it in its order. */
    'Changes Planned': props<{ changes: readonly NetworkChange[] }>(),
    'Undo Requested': emptyProps(),
    'Redo Requested': emptyProps(),
    'Node Selected': props<{ node: number }>(),
    'Nodes Chosen': props<{ nodes: readonly number[] }>(),
    'Tie Selected': props<{ source: number; target: number }>(),
    'Community Selected': props<{ community: number }>(),
    'Message Selected': props<{ message: number; ties: readonly { source: number; target: number }[] }>(),
    'Selection Cleared': emptyProps(),
  },
});
