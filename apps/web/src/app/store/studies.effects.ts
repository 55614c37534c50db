import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concatMap, map, of, switchMap, tap, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { Notices } from './notices';
import { StudiesActions } from './studies.actions';

@Injectable()
export class StudiesEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);

  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.listOpened),
      switchMap(() => this.list()),
    ),
  );

  readonly create = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.createRequested),
      concatMap(({ name }) =>
        this.api.createStudy({ name }).pipe(
          map((study) => StudiesActions.created({ study })),
          catchError(failed),
        ),
      ),
    ),
  );

  readonly open = createEffect(
    () =>
      this.actions.pipe(
        ofType(StudiesActions.created),
        tap(({ study }) => void this.router.navigate(['/studies', study.id, 'gather'])),
      ),
    { dispatch: false },
  );

  readonly rename = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.renameRequested),
      concatMap(({ id, name }) =>
        this.api.renameStudy({ study: id }, { name }).pipe(
          switchMap(() => this.list()),
          catchError(failed),
        ),
      ),
    ),
  );

  readonly delete = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.deleteRequested),
      concatMap(({ study }) =>
        this.api.deleteStudy({ study: study.id }).pipe(
          tap(() =>
            this.notices.withUndo(
              `“${study.name}” was deleted.`,
              StudiesActions.restoreRequested({ id: study.id }),
            ),
          ),
          switchMap(() => this.list()),
          catchError(failed),
        ),
      ),
    ),
  );

  readonly restore = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.restoreRequested),
      concatMap(({ id }) =>
        this.api.restoreStudy({ study: id }).pipe(
          switchMap(() => this.list()),
          catchError(failed),
        ),
      ),
    ),
  );

  readonly remove = createEffect(() =>
    this.actions.pipe(
      ofType(StudiesActions.removalRequested),
      concatMap(({ study }) =>
        this.api.removeStudy({ study: study.id }).pipe(
          tap(() => this.notices.say(`“${study.name}” was removed for good.`)),
          switchMap(() => this.list()),
          catchError(failed),
        ),
      ),
    ),
  );

  private list(): Observable<
    ReturnType<typeof StudiesActions.listArrived> | ReturnType<typeof StudiesActions.failed>
  > {
    return this.api.studies().pipe(
      map((list) => StudiesActions.listArrived({ list })),
      catchError(failed),
    );
  }
}

function failed(error: Error): Observable<ReturnType<typeof StudiesActions.failed>> {
  return of(StudiesActions.failed({ message: error.message }));
}
