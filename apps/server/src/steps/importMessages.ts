import { existsSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { FileFormat, ImportReport } from '@pebble/contract';
import { dayPhrase, formatCount } from '@pebble/core';
import { missingRoles } from '@pebble/core/files';
import { linkParents } from '../db/load/linkParents';
import { MessageLoader } from '../db/load/messageLoader';
import { skippedPath, uploadPath } from '../files/places';
import { readBatches } from '../intake/reader';
import { SkippedRows } from '../intake/skippedRows';
import { StepRefused, type StepDefinition } from './step';

/** Bytes that one post takes in a file, about. */
const TYPICAL_ROW = 300;

/** What one message is called in the file that it came from. */
const UNIT: Partial<Record<FileFormat, string>> = { mbox: 'email', eml: 'email', activities: 'activity' };

export const importMessages: StepDefinition<'import-messages', ImportReport> = {
  kind: 'import-messages',
  async run(context, { upload, file, name, reading }, progress) {
    const { store, study, step, limits } = context;
    const missing = missingRoles(reading.columns, 'messages');
    if (missing.length > 0)
      throw new StepRefused(`No column was named as ${missing.join(' and ')}.`, { file });
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path))
      throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
    const { id: source } = await store.query
      .insertInto('source')
      .values({
        study_id: study,
        step_id: step,
        name,
        format: reading.format,
        report: '{}',
        removed_at: null,
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    const loader = new MessageLoader(store, study, source);
    await loader.begin(statSync(path).size / TYPICAL_ROW);
    const skipped = new SkippedRows();
    let read = 0;
    const job = { path, file, reading, mostRows: limits.mostRows };
    for await (const batch of readBatches(context.intakeFile, job)) {
      loader.add(batch);
      batch.skipped.forEach((row) => skipped.add(row));
      read = batch.read;
      progress(`Reading ${file}`, batch.share * 0.85);
    }
    progress('Indexing', null);
    await loader.end();
    progress('Linking replies', null);
    const parentsMissing = await linkParents(store, study, source);
    if (loader.counts.kept === 0 && loader.counts.duplicates === 0) {
      throw new StepRefused(`No message could be read from ${file}. ${skipped.firstReason()}`, { file });
    }
    const report = makeReport(
      source,
      file,
      UNIT[reading.format] ?? 'row',
      read,
      loader,
      skipped,
      parentsMissing,
    );
    await store.query
      .updateTable('source')
      .set({ report: JSON.stringify(report) })
      .where('id', '=', source)
      .execute();
    await store.query.updateTable('study').set({ changed_at: context.now }).where('id', '=', study).execute();
    if (skipped.total > 0) writeFileSync(skippedPath(store.folder, step), `\ufeff${skipped.csv}`);
    rmSync(path, { force: true });
    return report;
  },
  describe({ file }, report) {
    if (!report) return `Messages were to be imported from ${file}.`;
    const period =
      report.from === null ? '' : ` of ${dayPhrase(report.from, true)} to ${dayPhrase(report.until!, true)}`;
    const parts = [
      `${formatCount(report.kept)} messages${period} by ${formatCount(report.authors)} accounts were imported from ${file}`,
    ];
    if (report.skipped > 0)
      parts.push(
        `${formatCount(report.skipped)} ${report.unit === 'row' ? 'rows' : 'items'} could not be read and were skipped`,
      );
    if (report.duplicates > 0)
      parts.push(`${formatCount(report.duplicates)} duplicates (same message id) were left out`);
    return `${parts.join('; ')}.`;
  },
};

function makeReport(
  source: number,
  file: string,
  unit: string,
  read: number,
  { counts, authors, accounts }: MessageLoader,
  skipped: SkippedRows,
  parentsMissing: number,
): ImportReport {
  const notes: string[] = [];
  if (counts.undated > 0)
    notes.push(`${formatCount(counts.undated)} messages have no date; they stand in no period.`);
  if (parentsMissing > 0)
    notes.push(
      `${formatCount(parentsMissing)} messages answer or pass on a message that is not in the study.`,
    );
  notes.push(...skipped.notes());
  return {
    source,
    file,
    unit,
    read,
    kept: counts.kept,
    skipped: skipped.total,
    skippedByReason: skipped.byReason(),
    duplicates: counts.duplicates,
    duplicatesInFile: counts.duplicatesInFile,
    undated: counts.undated,
    accountsNew: accounts.added,
    accountsKnown: accounts.known,
    authors: authors.size,
    mentions: counts.mentions,
    hashtags: counts.hashtags,
    links: counts.links,
    parentsMissing,
    from: counts.from,
    until: counts.until,
    notes,
  };
}
