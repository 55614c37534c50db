import { existsSync } from 'node:fs';
import type { ImportReport } from '@pebble/contract';
import { joinWith } from '@pebble/core';
import { uploadPath } from '../../files/places';
import { needRoles } from '../../intake/needRoles';
import type { IntakeFile } from '../../intake/reader';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';
import { importFiles, takenSentence } from './importFiles';

export const importSource: StepDefinition<'import-source', ImportReport> = {
  kind: 'import-source',
  async run(context, { name, more, ...first }, progress) {
    const files = [first, ...more].map(({ upload, file, reading }): IntakeFile => {
      needRoles(file, reading);
      const path = uploadPath(context.store.folder, upload);
      if (!existsSync(path))
        throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
      return { path, file, reading };
    });
    const report = await importFiles(context, { files, name }, progress);
    for (const { upload } of [first, ...more]) context.files.spend(upload);
    return report;
  },
  describe({ file, more }, report) {
    const from = joinWith('and', [file, ...more.map((one) => one.file)]);
    return report
      ? takenSentence(report, `imported from ${from}`)
      : `Messages were to be imported from ${from}.`;
  },
  followUps: ({ source, kept }) => (kept > 0 ? [{ kind: 'detect-languages', parameters: { source } }] : []),
};
