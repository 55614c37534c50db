import { inject, Injectable } from '@angular/core';
import { FOLLOWING, STEP_TRAITS, type Network, type Source, type StudyPart } from '@pebble/contract';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { concatLatestFrom } from '@ngrx/operators';
import { Store, type Action } from '@ngrx/store';
import {
  catchError,
  concatMap,
  debounceTime,
  defer,
  EMPTY,
  filter,
  finalize,
  forkJoin,
  map,
  merge,
  of,
  switchMap,
  takeUntil,
  tap,
  type Observable,
} from 'rxjs';
import { Api, isMissing } from '../api/api';
import { everyPage } from '../api/every-page';
import { Notices } from './notices';
import { studyEvents } from '../api/study-events';
import { WorkActions } from './work.actions';
import { work } from './work.reducer';

@Injectable()
export class WorkEffects {
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);

  /** Parts that steps changed and that nobody has asked for since. */
  private readonly wanted = new Set<StudyPart>();
  /** Whether the study has not arrived yet since it was opened. */
  private isAwaited = true;

  readonly load = createEffect(() =>
    merge(
      this.actions.pipe(
        ofType(WorkActions.studyOpened, WorkActions.connectedAgain),
        tap(() => (this.isAwaited = true)),
        map(({ id }) => id),
      ),
      this.actions.pipe(
        ofType(WorkActions.stepEnded),
        tap(({ step }) => STEP_TRAITS[step.kind].changes.forEach((part) => this.wanted.add(part))),
        debounceTime(60),
        filter(() => this.wanted.size > 0),
        map(({ step }) => step.study),
      ),
    ).pipe(
      switchMap((id) =>
        this.untilItArrives((wanted) => (this.isAwaited ? this.whole(id) : this.parts(id, wanted))).pipe(
          catchError((error: Error) =>
            of(
              isMissing(error)
                ? WorkActions.studyMissing({ id, why: error.message })
                : WorkActions.failed({ message: error.message }),
            ),
          ),
        ),
      ),
    ),
  );

  /** Reads what is wanted. What is changed meanwhile is wanted again, and so is all of it where it does not arrive. */
  private untilItArrives(read: (wanted: readonly StudyPart[]) => Observable<Action>): Observable<Action> {
    return defer(() => {
      const wanted = [...this.wanted];
      this.wanted.clear();
      let hasArrived = false;
      return read(wanted).pipe(
        tap(() => (hasArrived = true)),
        finalize(() => {
          if (!hasArrived) wanted.forEach((part) => this.wanted.add(part));
        }),
      );
    });
  }

  /** Reads the study with its logbook and runs. */
  private whole(id: string): Observable<Action> {
    return forkJoin([
      this.api.study({ study: id }),
      this.api.overview({ study: id }),
      this.sources(id),
      this.networks(id),
      everyPage('steps', (page) => this.api.logbook({ study: id }, page)),
      everyPage('runs', (page) => this.api.runs({ study: id }, page)),
    ]).pipe(
      tap(() => (this.isAwaited = false)),
      map(([study, overview, sources, networks, steps, runs]) =>
        WorkActions.studyArrived({ study, overview, sources, networks, steps, runs }),
      ),
    );
  }

  private sources(study: string): Observable<Source[]> {
    return everyPage('sources', (page) => this.api.sources({ study }, page));
  }

  private networks(study: string): Observable<Network[]> {
    return everyPage('networks', (page) => this.api.networks({ study }, page));
  }

  /** Reads what steps changed; the logbook and runs are told by themselves. */
  private parts(id: string, wanted: readonly StudyPart[]): Observable<Action> {
    const read = <T>(part: StudyPart, ask: () => Observable<T>): Observable<T | undefined> =>
      wanted.includes(part) ? ask() : of(undefined);
    return forkJoin({
      study: read('study', () => this.api.study({ study: id })),
      overview: read('messages', () => this.api.overview({ study: id })),
      sources: read('messages', () => this.sources(id)),
      networks: read('networks', () => this.networks(id)),
    }).pipe(map((parts) => WorkActions.partsArrived({ id, parts })));
  }

  readonly listen = createEffect(() =>
    this.actions.pipe(
      ofType(WorkActions.studyOpened),
      switchMap(({ id }) =>
        studyEvents(id).pipe(
          map((event) => ({ id, event })),
          takeUntil(this.actions.pipe(ofType(WorkActions.studyLeft))),
        ),
      ),
      map(({ id, event }) => {
        if (event === 'connected again') return WorkActions.connectedAgain({ id });
        switch (event.type) {
          case 'progress':
            return WorkActions.progressReported({ progress: event.progress });
          case 'collecting':
            return WorkActions.runReported({ run: event.run });
          case 'step':
            return WorkActions.stepEnded({ step: event.step });
          case 'routine':
            return WorkActions.routineReported({ run: event.run });
          case 'estimating':
            return WorkActions.estimateReported({ share: event.share });
        }
      }),
    ),
  );

  /** Of a step that followed by itself nobody else says that it failed. */
  readonly sayUndone = createEffect(() =>
    this.actions.pipe(
      ofType(WorkActions.stepEnded),
      filter(({ step }) => step.state === 'failed' && FOLLOWING.has(step.kind)),
      map(({ step: { sentence, error } }) =>
        WorkActions.failed({
          message: `${sentence} ${error ?? 'It failed.'} It can be run again from the logbook.`,
        }),
      ),
    ),
  );

  readonly cancel = createEffect(
    () =>
      this.actions.pipe(
        ofType(WorkActions.cancelRequested),
        concatLatestFrom(() => this.store.select(work.selectId)),
        concatMap(([{ step }, study]) =>
          (study ? this.api.cancelStep({ study, step }) : EMPTY).pipe(catchError(() => EMPTY)),
        ),
      ),
    { dispatch: false },
  );

  readonly deleteNetwork = createEffect(() =>
    this.actions.pipe(
      ofType(WorkActions.networkDeleteRequested),
      concatMap(({ network }) =>
        this.api.step(network.study, 'delete-network', { network: network.id }).pipe(
          tap(() =>
            this.notices.withUndo(
              `The network “${network.name}” was deleted.`,
              WorkActions.networkRestoreRequested({ id: network.id }),
            ),
          ),
          switchMap(() => EMPTY),
          catchError((error: Error) => of(WorkActions.failed({ message: error.message }))),
        ),
      ),
    ),
  );

  readonly restoreSource = createEffect(() =>
    this.actions.pipe(
      ofType(WorkActions.sourceRestoreRequested),
      concatLatestFrom(() => this.store.select(work.selectId)),
      concatMap(([{ source, name }, study]) =>
        (study ? this.api.step(study, 'restore-source', { source, name }) : EMPTY).pipe(
          switchMap(() => EMPTY),
          catchError((error: Error) => of(WorkActions.failed({ message: error.message }))),
        ),
      ),
    ),
  );

  readonly restoreNetwork = createEffect(() =>
    this.actions.pipe(
      ofType(WorkActions.networkRestoreRequested),
      concatLatestFrom(() => this.store.select(work.selectId)),
      concatMap(([{ id }, study]) =>
        (study ? this.api.step(study, 'restore-network', { network: id }) : EMPTY).pipe(
          switchMap(() => EMPTY),
          catchError((error: Error) => of(WorkActions.failed({ message: error.message }))),
        ),
      ),
    ),
  );
}
