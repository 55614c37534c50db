import { existsSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { FileFormat, ImportReport, Material } from '@pebble/contract';
import { dayPhrase, formatCount, joinWith } from '@pebble/core';
import { missingRoles } from '@pebble/core/files';
import { linkParents } from '../db/load/linkParents';
import { linkItems } from '../db/load/linkItems';
import { SourceLoader } from '../db/load/sourceLoader';
import { skippedPath, uploadPath } from '../files/places';
import { readBatches } from '../intake/reader';
import { SkippedRows } from '../intake/skippedRows';
import { StepRefused, type StepDefinition } from './step';

/** Bytes that one post takes in a file, about. */
const TYPICAL_ROW = 300;

/** What one message is called in the file that it came from. */
const UNIT: Partial<Record<FileFormat, string>> = { mbox: 'email', eml: 'email', activities: 'activity' };

/** What is said when nothing of a material could be read. */
const NOTHING: Partial<Record<Material, string>> = {
  messages: 'No message could be read',
  items: 'No item could be read',
  follows: 'Nobody who follows could be read',
  accounts: 'Nothing about accounts of this study could be read',
};

export const importSource: StepDefinition<'import-source', ImportReport> = {
  kind: 'import-source',
  async run(context, { upload, file, name, reading }, progress) {
    const { store, study, step, limits } = context;
    const missing = missingRoles(reading.columns, reading.material);
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
    const skipped = new SkippedRows();
    const loader = new SourceLoader(store, study, source, skipped);
    await loader.begin(statSync(path).size / TYPICAL_ROW);
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
    const itemsMissing = await linkItems(store, study, source);
    const parentsMissing = await linkParents(store, study, source);
    if (loader.isEmpty)
      throw new StepRefused(`${NOTHING[reading.material]} from ${file}. ${skipped.firstReason()}`, { file });
    const report = makeReport(source, file, UNIT[reading.format] ?? 'row', read, loader, skipped, {
      parents: parentsMissing,
      items: itemsMissing,
    });
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
    const parts = [`${broughtBy(report)} imported from ${file}`];
    if (report.skipped > 0)
      parts.push(
        `${formatCount(report.skipped)} ${report.unit === 'row' ? 'rows' : 'items'} could not be read and were skipped`,
      );
    if (report.duplicates > 0)
      parts.push(`${formatCount(report.duplicates)} duplicates (same message id) were left out`);
    return `${parts.join('; ')}.`;
  },
  followUps: ({ source, kept }) => (kept > 0 ? [{ kind: 'detect-languages', parameters: { source } }] : []),
};

/** "9,000 messages of 1 March 2026 to 31 May 2026 by 1,400 accounts and 60 items were" */
function broughtBy(report: ImportReport): string {
  const { kept, items, follows, profiles, from, until } = report;
  const period = from === null ? '' : ` of ${dayPhrase(from, true)} to ${dayPhrase(until!, true)}`;
  const parts: string[] = [];
  if (kept > 0 || items + follows + profiles === 0)
    parts.push(`${formatCount(kept)} messages${period} by ${formatCount(report.authors)} accounts`);
  if (items > 0) parts.push(`${formatCount(items)} items`);
  if (follows > 0) parts.push(`${formatCount(follows)} ties of following`);
  if (profiles > 0) parts.push(`details of ${formatCount(profiles)} accounts`);
  return `${joinWith('and', parts)} were`;
}

function makeReport(
  source: number,
  file: string,
  unit: string,
  read: number,
  { messages: { counts, authors }, accounts, people }: SourceLoader,
  skipped: SkippedRows,
  missing: { parents: number; items: number },
): ImportReport {
  const notes: string[] = [];
  if (counts.undated > 0)
    notes.push(`${formatCount(counts.undated)} messages have no date; they stand in no period.`);
  if (missing.parents > 0)
    notes.push(
      `${formatCount(missing.parents)} messages answer or pass on a message that is not in the study.`,
    );
  if (missing.items > 0)
    notes.push(`${formatCount(missing.items)} comments stand under an item that is not in the study.`);
  if (people.counts.itemsAgain > 0)
    notes.push(`${formatCount(people.counts.itemsAgain)} items were there already.`);
  if (people.counts.followsAgain > 0)
    notes.push(`${formatCount(people.counts.followsAgain)} ties of following were there already.`);
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
    parentsMissing: missing.parents,
    itemsMissing: missing.items,
    ...people.counts,
    from: counts.from,
    until: counts.until,
    notes,
  };
}
