import { existsSync } from 'node:fs';
import type { ImportReport } from '@pebble/contract';
import { missingRoles } from '@pebble/core/files';
import { uploadPath } from '../files/places';
import { StepRefused, type StepDefinition } from './step';
import { takeIn, takenSentence } from './takeIn';

export const importSource: StepDefinition<'import-source', ImportReport> = {
  kind: 'import-source',
  async run(context, { upload, file, name, reading }, progress) {
    const missing = missingRoles(reading.columns, reading.material);
    if (missing.length > 0)
      throw new StepRefused(`No column was named as ${missing.join(' and ')}.`, { file });
    const path = uploadPath(context.store.folder, upload);
    if (!existsSync(path))
      throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
    return takeIn(context, { path, file, name, reading }, progress);
  },
  describe: ({ file }, report) =>
    report ? takenSentence(report, `imported from ${file}`) : `Messages were to be imported from ${file}.`,
  followUps: ({ source, kept }) => (kept > 0 ? [{ kind: 'detect-languages', parameters: { source } }] : []),
};
