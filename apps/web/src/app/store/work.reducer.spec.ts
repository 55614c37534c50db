import { OFFLINE } from '../api/api';
import type { CollectRun, StepProgress } from '@pebble/contract';
import {
  exampleNetwork,
  exampleOverview,
  exampleRun,
  exampleStep,
  exampleStudy,
} from '../../testing/examples';
import { WorkActions } from './work.actions';
import { work, type WorkState } from './work.reducer';

const { reducer } = work;
const progress: StepProgress = {
  step: 7,
  study: exampleStudy.id,
  kind: 'import-source',
  phase: 'Reading',
  share: 0.5,
  remainingMs: 3000,
};

describe('the open study', () => {
  let state: WorkState;

  beforeEach(() => {
    state = reducer(undefined, WorkActions.studyOpened({ id: exampleStudy.id }));
    state = reducer(
      state,
      WorkActions.studyArrived({
        study: exampleStudy,
        overview: exampleOverview,
        sources: [],
        networks: [],
        steps: [],
        runs: [],
      }),
    );
  });

  it('keeps what is there when the same study is opened again, and empties for another', () => {
    expect(reducer(state, WorkActions.studyOpened({ id: exampleStudy.id }))).toBe(state);
    expect(reducer(state, WorkActions.studyOpened({ id: 'other' })).study).toBeNull();
  });

  it('leaves out what comes for another study', () => {
    const other = { ...exampleStudy, id: 'other' };
    const late = WorkActions.studyArrived({
      study: other,
      overview: exampleOverview,
      sources: [],
      networks: [],
      steps: [],
      runs: [],
    });
    expect(reducer(state, late)).toBe(state);
    expect(reducer(state, WorkActions.progressReported({ progress: { ...progress, study: 'other' } }))).toBe(
      state,
    );
    expect(reducer(state, WorkActions.stepEnded({ step: exampleStep({ study: 'other' }) }))).toBe(state);
  });

  it('takes the word that the application does not answer back once it does again, and no other', () => {
    state = reducer(state, WorkActions.progressReported({ progress }));
    const offline = reducer(state, WorkActions.failed({ message: OFFLINE }));
    const again = WorkActions.connectedAgain({ id: progress.study });
    expect(reducer(offline, again)).toMatchObject({ error: null, atWork: [] });
    const other = reducer(state, WorkActions.failed({ message: 'The disk is full.' }));
    expect(reducer(other, again).error).toBe('The disk is full.');
  });

  it('shows what runs until it has ended, and puts the step on top of the logbook once', () => {
    state = reducer(state, WorkActions.progressReported({ progress }));
    expect(work.selectRunning.projector([...state.atWork])).toEqual(progress);
    state = reducer(state, WorkActions.stepEnded({ step: exampleStep({ id: 6 }) }));
    state = reducer(state, WorkActions.stepEnded({ step: exampleStep() }));
    state = reducer(state, WorkActions.stepEnded({ step: exampleStep({ sentence: 'Again.' }) }));
    expect(state.atWork).toEqual([]);
    expect(state.steps.map(({ id }) => id)).toEqual([7, 6]);
    expect(state.steps[0].sentence).toBe('Again.');
  });

  it('keeps the newest step on top where an older one, which ran beside it, ends later', () => {
    for (const id of [6, 8, 7]) state = reducer(state, WorkActions.stepEnded({ step: exampleStep({ id }) }));
    expect(state.steps.map(({ id }) => id)).toEqual([8, 7, 6]);
  });

  it('keeps the end of a step that was told while the study was read, and steps that began later', () => {
    const told = [exampleStep({ id: 6 }), exampleStep({ id: 7 })];
    for (const step of told) state = reducer(state, WorkActions.stepEnded({ step }));
    const arrived = {
      study: exampleStudy,
      overview: exampleOverview,
      sources: [],
      networks: [],
      runs: [],
    };
    const read = [exampleStep({ id: 6, state: 'running' }), exampleStep({ id: 5 })];
    state = reducer(state, WorkActions.studyArrived({ ...arrived, steps: read }));
    expect(state.steps.map(({ id, state: of }) => [id, of])).toEqual([
      [7, 'done'],
      [6, 'done'],
      [5, 'done'],
    ]);
    state = reducer(state, WorkActions.studyArrived({ ...arrived, steps: [] }));
    expect(state.steps).toHaveLength(3);
  });

  it('shows collecting runs as they are told, the newest first, and forgets them', () => {
    state = reducer(state, WorkActions.runReported({ run: exampleRun({ id: 'a' }) }));
    state = reducer(state, WorkActions.runReported({ run: exampleRun({ id: 'b' }) }));
    state = reducer(state, WorkActions.runReported({ run: exampleRun({ id: 'a', state: 'done' }) }));
    expect(state.runs.map(({ id, state: now }) => `${id} ${now}`)).toEqual(['b running', 'a done']);
    const other = exampleRun({ id: 'c', study: 'other' });
    expect(reducer(state, WorkActions.runReported({ run: other }))).toBe(state);
    state = reducer(state, WorkActions.runForgotten({ id: 'b' }));
    expect(state.runs.map(({ id }) => id)).toEqual(['a']);
  });

  it('keeps what a run told while the study was read, which may be older', () => {
    const storing = exampleRun({ id: 'a', state: 'storing' });
    const arrived = (runs: CollectRun[]) =>
      WorkActions.studyArrived({
        study: exampleStudy,
        overview: exampleOverview,
        sources: [],
        networks: [],
        steps: [],
        runs,
      });
    state = reducer(state, WorkActions.runReported({ run: storing }));
    // The end of its step makes the study be read anew; the run ends meanwhile, and another one is forgotten.
    state = reducer(state, WorkActions.stepEnded({ step: exampleStep({ id: 9 }) }));
    state = reducer(state, WorkActions.runReported({ run: exampleRun({ id: 'a', state: 'done' }) }));
    state = reducer(state, WorkActions.runForgotten({ id: 'b' }));
    state = reducer(state, arrived([storing, exampleRun({ id: 'b' }), exampleRun({ id: 'c' })]));
    expect(state.runs.map(({ id, state: at }) => [id, at]).sort()).toEqual([
      ['a', 'done'],
      ['c', exampleRun({}).state],
    ]);
    // What is read later is newer again.
    state = reducer(state, WorkActions.stepEnded({ step: exampleStep({ id: 10 }) }));
    state = reducer(state, arrived([exampleRun({ id: 'a', state: 'cancelled' })]));
    expect(state.runs.map(({ state: at }) => at)).toEqual(['cancelled']);
  });

  it('keeps an error until it is put away', () => {
    state = reducer(state, WorkActions.failed({ message: 'No room.' }));
    expect(state.error).toBe('No room.');
    expect(reducer(state, WorkActions.errorDismissed()).error).toBeNull();
  });

  it('takes the first measured network for the latest', () => {
    const networks = [exampleNetwork({ id: 'a', state: 'woven' }), exampleNetwork({ id: 'b' })];
    expect(work.selectLatestNetwork.projector(networks)?.id).toBe('b');
    expect(work.selectLatestNetwork.projector([])).toBeNull();
  });

  it('forgets everything when the study is left', () => {
    expect(reducer(state, WorkActions.studyLeft())).toEqual(reducer(undefined, WorkActions.studyLeft()));
  });
});
