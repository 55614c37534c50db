import { Leaks } from '../people';
import {
  DifferencesQuery,
  DraftRequest,
  KeptRoutine,
  Routine,
  RoutineDraft,
  RoutineList,
  RoutinePlan,
  RoutineRequest,
  RoutineRun,
  RoutineRunList,
  RunDifferences,
  VariationRequest,
  VerifyRequest,
} from '../routine';
import { Bytes, routeTable } from './route';

const NOT_RIGHT = { 422: 'The routine or an answer is not right; it is said where.' };

export const routineRoutes = routeTable({
  routines: {
    method: 'get',
    path: '/routines',
    summary: 'Routines that come with the application, and those that were kept.',
    answer: RoutineList,
  },
  keepRoutine: {
    method: 'post',
    path: '/routines',
    summary: 'Keeps a routine.',
    body: Routine,
    answer: KeptRoutine,
    status: 201,
    problems: NOT_RIGHT,
  },
  changeRoutine: {
    method: 'patch',
    path: '/routines/{routine}',
    summary: 'Keeps a routine in place of an earlier version of it.',
    body: Routine,
    answer: KeptRoutine,
    problems: NOT_RIGHT,
  },
  forgetRoutine: {
    method: 'delete',
    path: '/routines/{routine}',
    summary: 'Forgets a routine that was kept; what it made in studies stays.',
  },
  draftRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-draft',
    summary:
      'A routine made of steps of the logbook and of all on which they rest, with what cannot go along.',
    body: DraftRequest,
    answer: RoutineDraft,
    problems: { 422: 'None of these steps can be run again.' },
  },
  planRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-plan',
    summary:
      'What a routine will do in a study with these answers, how long that takes about, and what keeps it from running.',
    body: RoutineRequest,
    answer: RoutinePlan,
  },
  routineRuns: {
    method: 'get',
    path: '/studies/{study}/routine-runs',
    summary: 'All times that routines were run in a study, the newest first.',
    answer: RoutineRunList,
  },
  runRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-runs',
    summary: 'Begins to run a routine; its steps stand in the logbook, the event stream says how far it is.',
    body: RoutineRequest,
    answer: RoutineRun,
    status: 202,
    problems: NOT_RIGHT,
  },
  varyRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-variations',
    summary:
      'Runs a routine once for each of several answers to one question, one after the other; steps on which the question has no bearing are done once.',
    body: VariationRequest,
    answer: RoutineRunList,
    status: 202,
    problems: NOT_RIGHT,
  },
  routineRun: {
    method: 'get',
    path: '/studies/{study}/routine-runs/{routineRun}',
    summary: 'One run, with what became of each step.',
    answer: RoutineRun,
  },
  routineDifferences: {
    method: 'get',
    path: '/studies/{study}/routine-runs/{routineRun}/differences',
    summary: 'What differs between the networks of a run and those of an earlier run of the same routine.',
    query: DifferencesQuery,
    answer: RunDifferences,
  },
  routineOutputs: {
    method: 'get',
    path: '/studies/{study}/routine-runs/{routineRun}/outputs',
    summary:
      'What a run gives as files, as a zip; with a record of the run, the only file in which dates stand.',
    answer: new Bytes(['application/zip']),
    problems: { 409: 'It gives no files, or what they are of is not there any more.' },
  },
  routineLeaks: {
    method: 'get',
    path: '/studies/{study}/routine-runs/{routineRun}/leaks',
    summary: 'Where people who have pseudonyms can be found in what a run gives as files.',
    answer: Leaks,
  },
  verifyRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-runs/{routineRun}/verify',
    summary:
      'Makes a run again, in a place of its own that is gone afterwards, and compares what comes out. Closing the connection stops it.',
    body: VerifyRequest,
    answer: RoutineRun,
    problems: { 422: 'The files are others than those of the run, or it cannot be made again.' },
  },
  cancelRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-runs/{routineRun}/cancel',
    summary: 'Stops a run; what its steps have done stays.',
    answer: RoutineRun,
    problems: { 409: 'It is not running.' },
  },
  goOnRoutine: {
    method: 'post',
    path: '/studies/{study}/routine-runs/{routineRun}/go-on',
    summary:
      'Goes on with a run that was stopped, failed in part, or was interrupted; what is done is not done again.',
    answer: RoutineRun,
    status: 202,
    problems: { 409: 'There is nothing left to do.' },
  },
});
