import { NewStandingRoutine, StandingChange, StandingRoutine, StandingRoutineList } from '../standing';
import { routeTable } from './route';

export const standingRoutes = routeTable({
  standingRoutines: {
    method: 'get',
    path: '/studies/{study}/standing-routines',
    summary: 'Routines that run by themselves in a study, the newest first.',
    answer: StandingRoutineList,
  },
  beginStanding: {
    method: 'post',
    path: '/studies/{study}/standing-routines',
    summary:
      'Lets a routine run by itself: after each import, after each collecting run, or at a time of day while the application runs.',
    body: NewStandingRoutine,
    answer: StandingRoutine,
    status: 201,
    problems: { 422: 'The routine or an answer is not right, or it asks for a file each time.' },
  },
  changeStanding: {
    method: 'patch',
    path: '/studies/{study}/standing-routines/{standing}',
    summary: 'Lets it rest, or go on; what came meanwhile is not made up for.',
    body: StandingChange,
    answer: StandingRoutine,
  },
  endStanding: {
    method: 'delete',
    path: '/studies/{study}/standing-routines/{standing}',
    summary: 'Ends it; its runs and what they made stay.',
  },
});
