import { statSync } from 'node:fs';
import type { FileFormat, ImportReport, Material } from '@pebble/contract';
import { counted, dayPhrase, formatCount, joinWith } from '@pebble/core';
import { linkItems } from '../../storage/load/linkItems';
import { linkParents } from '../../storage/load/linkParents';
import { SourceLoader } from '../../storage/load/sourceLoader';
import { readBatches, type IntakeFile } from '../../intake/reader';
import { SkippedRows } from '../../intake/skippedRows';
import { StepRefused } from '../../errors/stepErrors';
import type { Progress } from '../../threads/progress';
import type { StepContext } from '../step';

/** Bytes that one post takes in a file, about. */
const TYPICAL_ROW = 300;

/** What one message is called in the file that it came from. */
const UNIT: Partial<Record<FileFormat, string>> = {
  mbox: 'email',
  eml: 'email',
  jmap: 'email',
  activities: 'activity',
};

/** What is said when nothing of a material could be read. */
const NOTHING: Partial<Record<Material, string>> = {
  messages: 'No message could be read',
  items: 'No item could be read',
  follows: 'Nobody who follows could be read',
  accounts: 'Nothing about accounts of this study could be read',
};

/** A file that becomes a source, or several that become one. */
interface Arrival {
  readonly files: readonly IntakeFile[];
  readonly name: string;
  /** What is to be said in the report beside its counts. */
  readonly notes?: readonly string[];
  /** Whether a source without anything in it is a result too. */
  readonly mayBeEmpty?: boolean;
}

/** Takes everything that files hold into the study, as one source. */
export async function importFiles(
  context: StepContext,
  arrival: Arrival,
  progress: Progress,
): Promise<ImportReport> {
  const { store, step, limits } = context;
  const { files, name } = arrival;
  const [{ reading }] = files;
  const file = files.map((one) => one.file).join(', ');
  const { id: source } = await store.query
    .insertInto('source')
    .values({ step_id: step, name, format: reading.format, report: '{}', removed_at: null })
    .returning('id')
    .executeTakeFirstOrThrow();
  const skipped = new SkippedRows();
  const loader = new SourceLoader(store, source, skipped);
  const bytes = files.reduce((sum, { path }) => sum + statSync(path).size, 0);
  await loader.begin(bytes / TYPICAL_ROW);
  let read = 0;
  for await (const batch of readBatches(context.threads.intake, { files, mostRows: limits.mostRows })) {
    loader.add(batch);
    batch.skipped.forEach((row) => skipped.add(row));
    read = batch.read;
    progress(`Reading ${file}`, batch.share * 0.85);
  }
  progress('Indexing', null);
  await loader.end();
  progress('Linking replies', null);
  const itemsMissing = await linkItems(store, source);
  const parentsMissing = await linkParents(store, source, loader.messages.unlinked);
  if (loader.isEmpty && !arrival.mayBeEmpty)
    throw new StepRefused(`${NOTHING[reading.material]} from ${file}. ${skipped.firstReason()}`, { file });
  const counted = makeReport(source, file, UNIT[reading.format] ?? 'row', read, loader, skipped, {
    parents: parentsMissing,
    items: itemsMissing,
  });
  const report = { ...counted, notes: [...counted.notes, ...(arrival.notes ?? [])] };
  await store.query
    .updateTable('source')
    .set({ report: JSON.stringify(report) })
    .where('id', '=', source)
    .execute();
  await store.query.updateTable('study').set({ changed_at: context.now }).execute();
  if (skipped.total > 0) context.files.skipped(skipped.csv);
  return report;
}

/** What came, what was left out: "9,000 messages ... were imported from X; 3 rows could not be read and were skipped" */
export function takenSentence(report: ImportReport, from: string): string {
  const parts = [`${broughtBy(report)} ${from}`];
  if (report.skipped > 0)
    parts.push(
      `${formatCount(report.skipped)} ${report.unit === 'row' ? 'rows' : 'items'} could not be read and were skipped`,
    );
  if (report.duplicates > 0)
    parts.push(`${formatCount(report.duplicates)} duplicates (same message id) were left out`);
  return `${parts.join('; ')}.`;
}

/** "9,000 messages of 1 March 2026 to 31 May 2026 by 1,400 accounts and 60 items were" */
function broughtBy(report: ImportReport): string {
  const { kept, items, follows, profiles, from, until } = report;
  const period = from === null ? '' : ` of ${dayPhrase(from, true)} to ${dayPhrase(until!, true)}`;
  const parts: string[] = [];
  if (kept > 0 || items + follows + profiles === 0)
    parts.push(`${counted(kept, 'message')}${period} by ${counted(report.authors, 'account')}`);
  if (items > 0) parts.push(counted(items, 'item'));
  if (follows > 0) parts.push(counted(follows, 'tie of following', 'ties of following'));
  if (profiles > 0) parts.push(`details of ${counted(profiles, 'account')}`);
  const isOne = parts.length === 1 && profiles === 0 && kept + items + follows === 1;
  return `${joinWith('and', parts)} ${isOne ? 'was' : 'were'}`;
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
    notes.push(`${counted(counts.undated, 'message has', 'messages have')} no date and stand in no period.`);
  if (missing.parents > 0)
    notes.push(
      `${counted(missing.parents, 'message answers or passes', 'messages answer or pass')} on a message that is not in the study.`,
    );
  if (missing.items > 0)
    notes.push(
      `${counted(missing.items, 'comment stands', 'comments stand')} under an item that is not in the study.`,
    );
  if (people.counts.itemsAgain > 0)
    notes.push(`${counted(people.counts.itemsAgain, 'item was', 'items were')} there already.`);
  if (people.counts.followsAgain > 0)
    notes.push(
      `${counted(people.counts.followsAgain, 'tie of following was', 'ties of following were')} there already.`,
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
    parentsMissing: missing.parents,
    itemsMissing: missing.items,
    ...people.counts,
    from: counts.from,
    until: counts.until,
    notes,
  };
}
