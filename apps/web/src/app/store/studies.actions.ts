import type { Study, StudyList } from '@pebble/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

export const StudiesActions = createActionGroup({
  source: 'Studies',
  events: {
    'List Opened': emptyProps(),
    'List Arrived': props<{ list: StudyList }>(),
    'Create Requested': props<{ name: string }>(),
    Created: props<{ study: Study }>(),
    'Rename Requested': props<{ id: string; name: string }>(),
    'Delete Requested': props<{ study: Study }>(),
    Deleted: props<{ study: Study }>(),
    'Restore Requested': props<{ id: string }>(),
    'Removal Requested': props<{ study: Study }>(),
    Failed: props<{ message: string }>(),
  },
});
