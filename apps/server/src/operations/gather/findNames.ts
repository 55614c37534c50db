import type { StepParameters, TidyKind } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core';
import {
  BadPattern,
  libraryNames,
  listNames,
  nameKey,
  patternNames,
  type NameFinder,
} from '@pebble/core/files';
import { eachText } from '../../storage/messageTexts';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Found extends Record<string, unknown> {
  readonly messages: number;
  /** Messages in languages that the library does not read. */
  readonly otherLanguages: number;
  readonly names: number;
  readonly newNames: number;
  readonly places: number;
}

/** Finds people, organisations and places in the texts of messages, or the names of a list. What is there already stays. */
export const findNames: StepDefinition<'find-names', Found> = {
  kind: 'find-names',
  async run({ store, now }, { by, names, match, kind }, progress) {
    if (by === 'list' && names.length === 0) throw new StepRefused('The list names nothing.');
    const find = await finderOf(by, names, match, kind);
    const { query } = store;
    const known = new Map(
      (await query.selectFrom('name').select(['id', 'name_key']).execute()).map((row) => [
        row.name_key,
        row.id,
      ]),
    );
    const before = known.size;
    const pair = query
      .insertInto('message_name')
      .values({ name_id: 0, message_id: 0 })
      .onConflict((c) => c.doNothing())
      .compile();
    const insertPair = store.raw.prepare(pair.sql);
    const seen = new Set<number>();
    let otherLanguages = 0;
    let places = 0;
    const messages = await eachText(store, 'Finding names', progress, async ({ id, text, language }) => {
      if (by === 'library' && language !== null && language.length === 2 && language !== 'en') {
        otherLanguages++;
        return;
      }
      for (const { label, kind: found } of find(text)) {
        const key = nameKey(label);
        let name = known.get(key);
        if (name === undefined) {
          ({ id: name } = await query
            .insertInto('name')
            .values({ name_key: key, label, kind: found })
            .returning('id')
            .executeTakeFirstOrThrow());
          known.set(key, name);
        }
        insertPair.run(name, id);
        seen.add(name);
        places++;
      }
    });
    await query.updateTable('study').set({ changed_at: now }).execute();
    return { messages, otherLanguages, names: seen.size, newNames: known.size - before, places };
  },
  describe({ by, names, match }, result) {
    const how =
      by === 'library'
        ? 'People, organisations and places were looked for by the compromise library (English)'
        : `${counted(names.length, match === 'patterns' ? 'pattern' : 'name')} of a list ${names.length === 1 ? 'was' : 'were'} looked for`;
    if (!result) return `${how}.`;
    const others =
      result.otherLanguages > 0
        ? `; ${formatCount(result.otherLanguages)} in other languages were left aside`
        : '';
    return `${how} in ${counted(result.messages, 'message')}${others}: ${counted(result.names, 'name')} in ${counted(result.places, 'place')} of the texts, ${formatCount(result.newNames)} of them new.`;
  },
};

async function finderOf(
  by: 'library' | 'list',
  names: readonly string[],
  match: StepParameters<'find-names'>['match'],
  kind: TidyKind,
): Promise<NameFinder> {
  if (by === 'library') return libraryNames();
  if (match !== 'patterns') return listNames(names, match, kind);
  try {
    return patternNames(names, kind);
  } catch (error) {
    if (error instanceof BadPattern) throw new StepRefused(`${error.message} Nothing was looked for.`);
    throw error;
  }
}
