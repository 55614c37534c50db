import type { RoutineRefused } from '../routines/runs';
import { ApiError } from './problems';

/** Says where a routine or its answers do not fit. */
export function routineRefused({ problems, message }: RoutineRefused): ApiError {
  return new ApiError(422, 'The routine cannot run', message, {
    field: problems[0].where,
    kept: 'Nothing was changed.',
  });
}
