import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { counted, handleKey, joinWith, type TableColumns } from '@pebble/core';
import { isNoneOf } from '../../storage/lists';
import { erasePortraits } from '../../storage/portraits';
import { forgetInDatabase, type Forgotten } from '../../storage/erase/forgetAccount';
import { FORGOTTEN, handleReplacer } from '../../storage/erase/replaceHandle';
import { skippedLists, type NetworkPart } from '../../files/places';
import { waitingUploads } from '../../storage/files/unusedUploads';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { Progress } from '../../threads/progress';
import type { StepContext, StepDefinition } from '../step';

interface Result extends Forgotten, Record<string, unknown> {
  /** Networks in which it stood. */
  readonly networks: number;
  /** Networks that are to be woven again, since messages are gone that made them. */
  readonly stale: number;
  /** Files that waited to be taken in. */
  readonly uploads: number;
}

/**
 * Forgets a person: what the account wrote is erased, its handle is replaced wherever else it stands, its node in networks woven before has
 * no name any more. The logbook says that and how much, and not whom.
 */
export const forgetAccount: StepDefinition<'forget-account', Result> = {
  kind: 'forget-account',
  erases: true,
  async run(context, { account }, progress) {
    const { store, files } = context;
    const found = await store.query
      .selectFrom('account')
      .select('handle')
      .where('id', '=', account)
      .executeTakeFirst();
    if (!found) throw new StepRefused('This account is not in the study.');
    await refuseWhileCollecting(context);
    progress('Erasing messages', null);
    await erasePortraits(store);
    const forgotten = await forgetInDatabase(store, found.handle, (phase) => progress(phase, null));
    const networks = await forgetInNetworks(context, found.handle, progress);
    const stale = await markWoven(context);
    // What waits to be taken in may name it in ways that cannot be searched.
    const uploads = waitingUploads(store.folder);
    for (const name of uploads) files.remove(join(store.folder, 'uploads', name));
    forgetInSkippedRows(context, found.handle);
    await store.query.updateTable('study').set({ changed_at: context.now }).execute();
    return {
      ...forgotten,
      networks,
      stale,
      uploads: uploads.length,
    };
  },
  describe(_, result) {
    if (!result) return 'A person was to be forgotten.';
    const { messages, mentions, networks, stale, uploads } = result;
    const parts = [
      `${counted(messages, 'message')} of the account ${messages === 1 ? 'was' : 'were'} erased`,
      `its handle was replaced by “${FORGOTTEN}” in ${counted(mentions, 'message')} of others`,
      ...(networks > 0 ? [`its node in ${counted(networks, 'network')} lost its name`] : []),
      ...(uploads > 0
        ? [`${counted(uploads, 'file')} that waited to be taken in ${uploads === 1 ? 'was' : 'were'} removed`]
        : []),
    ];
    const again =
      stale > 0
        ? ` ${counted(stale, 'network')} woven before ${stale === 1 ? 'is' : 'are'} to be woven again, since messages are gone that made ${stale === 1 ? 'it' : 'them'}.`
        : '';
    return `A person was forgotten: ${joinWith('and', parts)}.${again}`;
  },
};

/** Of networks woven from messages it is said that some are gone. Returns how many there are, without the deleted ones. */
async function markWoven({ store: { query } }: StepContext): Promise<number> {
  const woven = await query
    .updateTable('network')
    .set((e) => ({ forgotten: e('forgotten', '+', 1) }))
    .where('weave', '<>', 'null')
    .returning('deleted_at')
    .execute();
  return woven.filter(({ deleted_at }) => deleted_at === null).length;
}

/** What a run has brought lies in its spool, which is taken in as it is. */
async function refuseWhileCollecting({ store }: StepContext): Promise<void> {
  const open = await store.query
    .selectFrom('collect_run')
    .select('name')
    .where(isNoneOf('state', ['done', 'cancelled']))
    .execute();
  if (open.length > 0)
    throw new StepRefused(
      `The collecting run “${open[0].name}” has not ended, and what it brought is not in the study yet. End it or forget it first. Nothing was erased.`,
    );
}

/** Takes the names of an account out of the tables of all networks. Returns in how many it stood. */
async function forgetInNetworks(
  { store, files }: StepContext,
  handle: string,
  progress: Progress,
): Promise<number> {
  const ids = (await store.query.selectFrom('network').select('id').execute()).map(({ id }) => id);
  let stood = 0;
  for (const [i, id] of ids.entries()) {
    progress('Taking it out of networks', i / ids.length);
    const changed = (['nodes', 'edges'] satisfies NetworkPart[]).map((part) => {
      const before = readTable(store.folder, id, part);
      const after = withoutAccount(before, handle);
      if (after) files.table(id, part, after);
      return after !== null;
    });
    if (changed.includes(true)) stood++;
    files.remove(join(store.folder, 'networks', id, 'small-picture.json'));
  }
  return stood;
}

/** The table with the texts of the account's own row taken out, and its handle replaced in others; null where it does not stand in it. */
function withoutAccount(table: TableColumns, handle: string): TableColumns | null {
  const { replace } = handleReplacer(handle);
  const key = handleKey(handle);
  const texts = Object.entries(table).filter((column): column is [string, readonly string[]] =>
    Array.isArray(column[1]),
  );
  const own = new Set<number>();
  for (const name of ['handle', 'key', 'id'])
    (texts.find(([column]) => column === name)?.[1] ?? []).forEach((value, row) => {
      if (typeof value === 'string' && handleKey(value) === key) own.add(row);
    });
  let isChanged = false;
  const changed = texts.map(([name, values]): [string, readonly string[]] => {
    const now = values.map((value, row) => {
      if (typeof value !== 'string') return value;
      const text = own.has(row) && value !== '' && isPersonal(name) ? FORGOTTEN : replace(value);
      if (text !== value) isChanged = true;
      return text;
    });
    return [name, now];
  });
  return isChanged ? { ...table, ...Object.fromEntries(changed) } : null;
}

/** Groups and sorts of a node say nothing of a person alone, and keep the map as it is. */
const isPersonal = (column: string): boolean => column !== 'mode' && column !== 'kind';

/** Replaces the handle in the lists of rows that imports left out. */
function forgetInSkippedRows({ store, files }: StepContext, handle: string): void {
  const { replace } = handleReplacer(handle);
  for (const path of skippedLists(store.folder)) {
    const text = readFileSync(path, 'utf8');
    const now = replace(text);
    if (now !== text) files.text(path, now);
  }
}
