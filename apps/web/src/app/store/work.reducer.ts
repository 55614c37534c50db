import type {
  CollectRun,
  MessageOverview,
  Network,
  Source,
  Step,
  StepProgress,
  Study,
} from '@pebble/contract';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import { OFFLINE } from '../api/api';
import { WorkActions } from './work.actions';

export interface WorkState {
  readonly id: string | null;
  readonly study: Study | null;
  readonly overview: MessageOverview | null;
  readonly sources: readonly Source[];
  readonly networks: readonly Network[];
  /** The network whose map was opened last. */
  readonly openNetwork: string | null;
  readonly steps: readonly Step[];
  /** Collecting runs, the newest first. */
  readonly runs: readonly CollectRun[];
  /** Runs of which something was told since the study was last asked for: what is read then may be older. */
  readonly told: readonly string[];
  /** Steps at work: one that only computes goes on beside another. */
  readonly atWork: readonly StepProgress[];
  /** How far the estimate is that takes long; null where none does. */
  readonly estimating: number | null;
  /** How often something was told of runs of routines. */
  readonly routinesTold: number;
  /** Why there is no study at the address; null where there is one, or it is not known yet. */
  readonly missing: string | null;
  readonly error: string | null;
}

const closed: WorkState = {
  id: null,
  study: null,
  overview: null,
  sources: [],
  networks: [],
  openNetwork: null,
  steps: [],
  runs: [],
  told: [],
  atWork: [],
  estimating: null,
  routinesTold: 0,
  missing: null,
  error: null,
};

export const work = createFeature({
  name: 'work',
  reducer: createReducer(
    closed,
    on(WorkActions.studyOpened, (state, { id }): WorkState => (state.id === id ? state : { ...closed, id })),
    on(WorkActions.studyLeft, (): WorkState => closed),
    on(WorkActions.studyArrived, (state, { study, overview, sources, networks, steps, runs }): WorkState =>
      study.id === state.id
        ? {
            ...state,
            study,
            overview,
            sources,
            networks,
            steps: withLater(steps, state.steps),
            runs: withTold(runs, state),
          }
        : state,
    ),
    on(WorkActions.studyMissing, (state, { id, why }): WorkState =>
      id === state.id ? { ...state, missing: why } : state,
    ),
    on(WorkActions.networkOpened, (state, { id }): WorkState => ({ ...state, openNetwork: id })),
    on(WorkActions.partsArrived, (state, { id, parts }): WorkState =>
      id === state.id
        ? {
            ...state,
            study: parts.study ?? state.study,
            overview: parts.overview ?? state.overview,
            sources: parts.sources ?? state.sources,
            networks: parts.networks ?? state.networks,
          }
        : state,
    ),
    // What was at work is told anew, and nobody is offline any more.
    on(WorkActions.connectedAgain, (state, { id }): WorkState =>
      id === state.id
        ? { ...state, atWork: [], told: [], error: state.error === OFFLINE ? null : state.error }
        : state,
    ),
    on(WorkActions.runReported, (state, { run }): WorkState => {
      if (run.study !== state.id) return state;
      const isKnown = state.runs.some(({ id }) => id === run.id);
      return {
        ...state,
        told: [...state.told, run.id],
        runs: isKnown ? state.runs.map((one) => (one.id === run.id ? run : one)) : [run, ...state.runs],
      };
    }),
    on(WorkActions.runForgotten, (state, { id }): WorkState => ({
      ...state,
      told: [...state.told, id],
      runs: state.runs.filter((run) => run.id !== id),
    })),
    on(WorkActions.progressReported, (state, { progress }): WorkState =>
      progress.study === state.id
        ? { ...state, atWork: [...state.atWork.filter(({ step }) => step !== progress.step), progress] }
        : state,
    ),
    on(WorkActions.stepEnded, (state, { step }): WorkState =>
      step.study === state.id
        ? {
            ...state,
            told: [],
            atWork: state.atWork.filter((one) => one.step !== step.id),
            steps: newestFirst([step, ...state.steps.filter(({ id }) => id !== step.id)]),
          }
        : state,
    ),
    on(WorkActions.estimateReported, (state, { share }): WorkState => ({ ...state, estimating: share })),
    on(WorkActions.routineReported, (state): WorkState => ({
      ...state,
      routinesTold: state.routinesTold + 1,
    })),
    on(WorkActions.failed, (state, { message }): WorkState => ({ ...state, error: message })),
    on(WorkActions.errorDismissed, (state): WorkState => ({ ...state, error: null })),
  ),
  extraSelectors: ({ selectNetworks, selectAtWork }) => ({
    /** The step that was begun last of those that are at work. */
    selectRunning: createSelector(
      selectAtWork,
      (atWork) => [...atWork].sort((a, b) => b.step - a.step).at(0) ?? null,
    ),
    selectLatestNetwork: createSelector(
      selectNetworks,
      (networks) => networks.find(({ state }) => state === 'measured') ?? null,
    ),
  }),
});

/** What was read may be older than what was told meanwhile: of two, the step that has ended is the later one. The newest stands first. */
function withLater(read: readonly Step[], known: readonly Step[]): readonly Step[] {
  const steps = new Map(read.map((step) => [step.id, step]));
  for (const step of known)
    if ((steps.get(step.id)?.state ?? 'running') === 'running') steps.set(step.id, step);
  return newestFirst(steps.values());
}

/** Steps that run beside each other do not end in the order in which they began. */
function newestFirst(steps: Iterable<Step>): readonly Step[] {
  return [...steps].sort((a, b) => b.id - a.id);
}

/** Of runs that were told of while they were read, what was told holds; one that is gone stays gone. */
function withTold(read: readonly CollectRun[], { runs, told }: WorkState): readonly CollectRun[] {
  const later = runs.filter(({ id }) => told.includes(id));
  const others = read.filter(({ id }) => !told.includes(id));
  return [...later, ...others].sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
}
