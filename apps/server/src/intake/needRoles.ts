import type { ImportMapping } from '@pebble/contract';
import { missingRoles } from '@pebble/core/files';
import { StepRefused } from '../errors/stepErrors';

/** Says which columns are wanting, if any. Throws StepRefused. */
export function needRoles(file: string, reading: ImportMapping): void {
  const missing = missingRoles(reading.columns, reading.material);
  if (missing.length > 0) throw new StepRefused(`No column was named as ${missing.join(' and ')}.`, { file });
}
