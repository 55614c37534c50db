import type {
  CollectRun,
  MessageOverview,
  Network,
  Source,
  Step,
  StepProgress,
  Study,
} from '@pebble/contract';
import { createActionGroup, emptyProps, props } from '@ngrx/store';

/** What happens in the study that is open. */
export const WorkActions = createActionGroup({
  source: 'Work',
  events: {
    'Study Opened': props<{ id: string }>(),
    'Study Left': emptyProps(),
    'Connected Again': props<{ id: string }>(),
    'Study Arrived': props<{
      study: Study;
      overview: MessageOverview;
      sources: Source[];
      networks: Network[];
      steps: Step[];
      runs: CollectRun[];
    }>(),
    /** Of what a step changed; the others stay. */
    'Parts Arrived': props<{
      id: string;
      parts: {
        study?: Study;
        overview?: MessageOverview;
        sources?: Source[];
        networks?: Network[];
      };
    }>(),
    /** There is no such study; what is said tells why. */
    'Study Missing': props<{ id: string; why: string }>(),
    'Network Opened': props<{ id: string }>(),
    'Run Reported': props<{ run: CollectRun }>(),
    'Run Forgotten': props<{ id: string }>(),
    'Progress Reported': props<{ progress: StepProgress }>(),
    'Step Ended': props<{ step: Step }>(),
    'Estimate Reported': props<{ share: number | null }>(),
    'Routine Reported': props<{ run: number }>(),
    'Cancel Requested': props<{ step: number }>(),
    Failed: props<{ message: string }>(),
    'Error Dismissed': emptyProps(),
    'Network Delete Requested': props<{ network: Network }>(),
    'Network Restore Requested': props<{ id: string }>(),
    'Source Restore Requested': props<{ source: number; name: string }>(),
  },
});
