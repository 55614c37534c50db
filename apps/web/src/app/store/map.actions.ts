import type { MapDescription } from '@pebble/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

export const MapActions = createActionGroup({
  source: 'Map',
  events: {
    Opened: props<{ network: string; description: MapDescription }>(),
    'Description Changed': props<{ description: MapDescription }>(),
    'Node Moved': props<{ node: number; from: readonly [number, number]; to: readonly [number, number] }>(),
    'Undo Requested': emptyProps(),
    'Redo Requested': emptyProps(),
    'Node Selected': props<{ node: number }>(),
    'Tie Selected': props<{ source: number; target: number }>(),
    'Community Selected': props<{ community: number }>(),
    'Message Selected': props<{ message: number; ties: readonly { source: number; target: number }[] }>(),
    'Selection Cleared': emptyProps(),
  },
});
