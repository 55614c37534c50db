import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { provideMockActions } from '@ngrx/effects/testing';
import type { Action } from '@ngrx/store';
import { provideMockStore } from '@ngrx/store/testing';
import { of, ReplaySubject, Subject, throwError, type Observable } from 'rxjs';
import { exampleNetwork, exampleOverview, exampleStep, exampleStudy } from '../../testing/examples';
import { Api } from '../api/api';
import { Notices } from './notices';
import { StudiesActions } from './studies.actions';
import { StudiesEffects } from './studies.effects';
import { WorkActions } from './work.actions';
import { WorkEffects } from './work.effects';
import { work } from './work.reducer';

/** An event source that tests speak through. */
class FakeEvents {
  static last: FakeEvents | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  closed = false;

  constructor(readonly address: string) {
    FakeEvents.last = this;
  }

  close(): void {
    this.closed = true;
  }
}

describe('effects', () => {
  const list = { studies: [exampleStudy], deleted: [], archived: [] };
  const page = { total: 0, offset: 0 };
  const api = {
    studies: jest.fn(() => of(list)),
    createStudy: jest.fn(() => of(exampleStudy)),
    renameStudy: jest.fn(() => of(exampleStudy)),
    deleteStudy: jest.fn(() => of(null)),
    restoreStudy: jest.fn(() => of(exampleStudy)),
    study: jest.fn(() => of(exampleStudy)),
    overview: jest.fn(() => of(exampleOverview)),
    sources: jest.fn(() => of({ ...page, sources: [] })),
    networks: jest.fn(() => of({ ...page, networks: [] })),
    logbook: jest.fn(() => of({ ...page, steps: [] })),
    runs: jest.fn(() => of({ ...page, runs: [] })),
    cancelStep: jest.fn(() => of(null)),
    step: jest.fn(() => of(exampleStep())),
  };
  const notices = { say: jest.fn(), withUndo: jest.fn() };
  const router = { navigate: jest.fn() };
  let actions: ReplaySubject<Action>;
  let seen: Action[];

  beforeEach(() => {
    jest.clearAllMocks();
    (globalThis as { EventSource?: unknown }).EventSource = FakeEvents;
    actions = new ReplaySubject<Action>();
    seen = [];
    TestBed.configureTestingModule({
      providers: [
        StudiesEffects,
        WorkEffects,
        provideMockActions(() => actions),
        provideMockStore({ selectors: [{ selector: work.selectId, value: exampleStudy.id }] }),
        { provide: Api, useValue: api },
        { provide: Notices, useValue: notices },
        { provide: Router, useValue: router },
      ],
    });
  });

  describe('of the list of studies', () => {
    const begin = (effect: 'load' | 'create' | 'open' | 'rename' | 'delete' | 'restore'): void => {
      const actionsOf: Observable<Action> = TestBed.inject(StudiesEffects)[effect];
      actionsOf.subscribe((action) => seen.push(action));
    };

    it('load the list, or say why not', () => {
      begin('load');
      actions.next(StudiesActions.listOpened());
      api.studies.mockReturnValueOnce(throwError(() => new Error('No answer.')));
      actions.next(StudiesActions.listOpened());
      expect(seen).toEqual([
        StudiesActions.listArrived({ list }),
        StudiesActions.failed({ message: 'No answer.' }),
      ]);
    });

    it('open a study that was begun', () => {
      begin('create');
      actions.next(StudiesActions.createRequested({ name: 'Lamps' }));
      expect(api.createStudy).toHaveBeenCalledWith({ name: 'Lamps' });
      expect(seen).toEqual([StudiesActions.created({ study: exampleStudy })]);
      begin('open');
      actions.next(StudiesActions.created({ study: exampleStudy }));
      expect(router.navigate).toHaveBeenCalledWith(['/studies', exampleStudy.id, 'gather']);
    });

    it('offer to take back what was deleted', () => {
      begin('delete');
      actions.next(StudiesActions.deleteRequested({ study: exampleStudy }));
      expect(notices.withUndo).toHaveBeenCalledWith(
        '“Lamps” was deleted.',
        StudiesActions.restoreRequested({ id: exampleStudy.id }),
      );
      expect(seen).toEqual([StudiesActions.listArrived({ list })]);
    });

    it('read the list again after a rename and after taking back', () => {
      begin('rename');
      begin('restore');
      actions.next(StudiesActions.renameRequested({ id: 'x', name: 'New' }));
      actions.next(StudiesActions.restoreRequested({ id: 'x' }));
      expect(api.renameStudy).toHaveBeenCalledWith({ study: 'x' }, { name: 'New' });
      expect(api.studies).toHaveBeenCalledTimes(2);
    });
  });

  describe('of the open study', () => {
    const effects = (): WorkEffects => TestBed.inject(WorkEffects);

    it('load everything of the study', () => {
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      expect(seen[0]).toMatchObject({ type: WorkActions.studyArrived.type, study: exampleStudy });
    });

    it('load again what a step changed, and nothing after a quiet one', async () => {
      const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 90));
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      jest.clearAllMocks();
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'describe-map' }) }));
      await pause();
      expect(seen).toHaveLength(1);
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'group-nodes' }) }));
      await pause();
      expect(seen[1]).toEqual(
        WorkActions.partsArrived({
          id: exampleStudy.id,
          parts: { study: undefined, overview: undefined, sources: undefined, networks: expect.anything() },
        }),
      );
      expect([api.study, api.overview, api.logbook].map(({ mock }) => mock.calls.length)).toEqual([0, 0, 0]);
      // Two at once: what either of them changed.
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'find-names' }) }));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'rename-study' }) }));
      await pause();
      expect([api.study, api.overview, api.networks].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1]);
    });

    it('load again what a second step changed while it was read after the first', async () => {
      const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 90));
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      api.networks.mockClear();
      const first = new Subject<{ total: number; offset: number; networks: never[] }>();
      api.networks.mockReturnValueOnce(first);
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'weave' }) }));
      await pause();
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'measure-network' }) }));
      first.next({ ...page, networks: [] });
      first.complete();
      await pause();
      expect(api.networks).toHaveBeenCalledTimes(2);
    });

    it('load again what a step changed while everything was read', async () => {
      const first = new Subject<{ total: number; offset: number; networks: never[] }>();
      api.networks.mockClear();
      api.networks.mockReturnValueOnce(first);
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'measure-network' }) }));
      first.next({ ...page, networks: [] });
      first.complete();
      await new Promise((resolve) => setTimeout(resolve, 90));
      expect(api.networks).toHaveBeenCalledTimes(2);
    });

    it('ask again for what could not be read, with the next that is', async () => {
      const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 90));
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      api.networks.mockClear();
      api.networks.mockReturnValueOnce(throwError(() => new Error('No answer.')));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'weave' }) }));
      await pause();
      expect(seen.at(-1)).toEqual(WorkActions.failed({ message: 'No answer.' }));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'rename-study' }) }));
      await pause();
      expect(api.networks).toHaveBeenCalledTimes(2);
    });

    it('load everything where a step ends before the study has come', async () => {
      effects().load.subscribe((action) => seen.push(action));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'group-nodes' }) }));
      await new Promise((resolve) => setTimeout(resolve, 90));
      expect(seen[0]).toMatchObject({ type: WorkActions.studyArrived.type });
    });

    it('turn the events of the server into actions until the study is left', () => {
      effects().listen.subscribe((action) => seen.push(action));
      actions.next(WorkActions.studyOpened({ id: exampleStudy.id }));
      const source = FakeEvents.last!;
      expect(source.address).toBe(`/api/v1/studies/${exampleStudy.id}/events`);
      source.onmessage!({ data: JSON.stringify({ type: 'step', step: exampleStep() }) });
      expect(seen).toEqual([WorkActions.stepEnded({ step: exampleStep() })]);
      actions.next(WorkActions.studyLeft());
      expect(source.closed).toBe(true);
    });

    it('say of a step that followed by itself that it failed, and of one that somebody waits for nothing', () => {
      effects().sayUndone.subscribe((action) => seen.push(action));
      const failed = {
        state: 'failed',
        sentence: 'Measures were to be computed.',
        error: 'The disk is full.',
      } as const;
      actions.next(WorkActions.stepEnded({ step: exampleStep({ ...failed, kind: 'measure-network' }) }));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ ...failed, kind: 'weave' }) }));
      actions.next(WorkActions.stepEnded({ step: exampleStep({ kind: 'measure-network' }) }));
      const message = 'Measures were to be computed. The disk is full. It can be run again from the logbook.';
      expect(seen).toEqual([WorkActions.failed({ message })]);
    });

    it('cancel the step that runs', () => {
      effects().cancel.subscribe();
      actions.next(WorkActions.cancelRequested({ step: 7 }));
      expect(api.cancelStep).toHaveBeenCalledWith({ study: exampleStudy.id, step: 7 });
    });

    it('delete a network with an undo, and restore it', () => {
      effects().deleteNetwork.subscribe((action) => seen.push(action));
      effects().restoreNetwork.subscribe((action) => seen.push(action));
      const network = exampleNetwork();
      actions.next(WorkActions.networkDeleteRequested({ network }));
      expect(notices.withUndo.mock.calls[0][1]).toEqual(
        WorkActions.networkRestoreRequested({ id: network.id }),
      );
      actions.next(WorkActions.networkRestoreRequested({ id: network.id }));
      expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'restore-network', { network: network.id });
      api.step.mockReturnValueOnce(throwError(() => new Error('It is gone.')));
      actions.next(WorkActions.networkDeleteRequested({ network }));
      expect(seen).toEqual([WorkActions.failed({ message: 'It is gone.' })]);
    });
  });
});
