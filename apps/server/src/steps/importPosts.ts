import { existsSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { ImportReport, SkippedRow } from '@pebble/contract';
import { dayPhrase, formatCount, safeCsvRow } from '@pebble/core';
import { missingRoles } from '@pebble/core/files';
import { linkParents } from '../db/load/linkParents';
import { MessageLoader } from '../db/load/messageLoader';
import { skippedPath, uploadPath } from '../files/places';
import { readBatches } from '../intake/reader';
import { StepRefused, type StepDefinition } from './step';

/** Bytes that one post takes in a file, about. */
const TYPICAL_ROW = 300;

/** Skipped rows that are listed one by one; beyond this they are counted only, and the report says so. */
const MOST_LISTED = 100_000;

export const importPosts: StepDefinition<'import-posts', ImportReport> = {
  kind: 'import-posts',
  async run(context, { upload, file, name, reading }, progress) {
    const { store, study, step, limits } = context;
    const missing = missingRoles(reading.columns);
    if (missing.length > 0)
      throw new StepRefused(`No column was named as ${missing.join(' and ')}.`, { file });
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path))
      throw new StepRefused('The uploaded file is no longer there. Please choose it again.', { file });
    const { id: source } = await store.query
      .insertInto('source')
      .values({ study_id: study, step_id: step, name, format: reading.format, report: '{}' })
      .returning('id')
      .executeTakeFirstOrThrow();
    const loader = new MessageLoader(store, study, source);
    await loader.begin(statSync(path).size / TYPICAL_ROW);
    const skipped = new SkippedRows(safeCsvRow(['line', 'field', 'reason']));
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
    const report = makeReport(source, file, read, loader, skipped, parentsMissing);
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
    if (!report) return `Posts were to be imported from ${file}.`;
    const period =
      report.from === null ? '' : ` of ${dayPhrase(report.from, true)} to ${dayPhrase(report.until!, true)}`;
    const parts = [
      `${formatCount(report.kept)} messages${period} by ${formatCount(report.authors)} accounts were imported from ${file}`,
    ];
    if (report.skipped > 0)
      parts.push(`${formatCount(report.skipped)} rows could not be read and were skipped`);
    if (report.duplicates > 0)
      parts.push(`${formatCount(report.duplicates)} duplicates (same message id) were left out`);
    return `${parts.join('; ')}.`;
  },
};

class SkippedRows {
  total = 0;
  private readonly reasons = new Map<string, number>();
  private first: SkippedRow | null = null;

  constructor(public csv: string) {}

  add(row: SkippedRow): void {
    this.total++;
    this.first ??= row;
    if (this.total <= MOST_LISTED) this.csv += safeCsvRow([row.row, row.field, row.reason]);
    const kind = row.reason
      .replace(/[“"].*[”"]/, '')
      .replace(/\d+/g, 'n')
      .replace(/[:.]\s*.*$/, '')
      .trim();
    this.reasons.set(kind, (this.reasons.get(kind) ?? 0) + 1);
  }

  byReason(): ImportReport['skippedByReason'] {
    return [...this.reasons].map(([reason, rows]) => ({ reason, rows })).sort((a, b) => b.rows - a.rows);
  }

  firstReason(): string {
    return this.first ? `Line ${this.first.row}: ${this.first.reason}` : 'It has a header and no rows.';
  }
}

function makeReport(
  source: number,
  file: string,
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
  if (skipped.total > MOST_LISTED)
    notes.push(`Only the first ${formatCount(MOST_LISTED)} skipped rows are listed.`);
  return {
    source,
    file,
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
