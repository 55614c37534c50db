import type { Study } from '@pebble/contract';
import { createFeature, createReducer, on } from '@ngrx/store';
import { StudiesActions } from './studies.actions';

interface StudiesState {
  readonly loaded: boolean;
  readonly list: readonly Study[];
  readonly deleted: readonly Study[];
  readonly archived: readonly Study[];
  readonly error: string | null;
}

const empty: StudiesState = { loaded: false, list: [], deleted: [], archived: [], error: null };

export const studies = createFeature({
  name: 'studies',
  reducer: createReducer(
    empty,
    on(StudiesActions.listArrived, (_, { list }): StudiesState => ({
      loaded: true,
      list: list.studies,
      deleted: list.deleted,
      archived: list.archived,
      error: null,
    })),
    on(StudiesActions.failed, (state, { message }): StudiesState => ({
      ...state,
      loaded: true,
      error: message,
    })),
  ),
});
