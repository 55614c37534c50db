import { counted, formatCount } from '@pebble/core';
import { libraryNames, listNames, nameKey, type NameFinder } from '@pebble/core/files';
import { StepRefused, type StepDefinition } from './step';

/** Messages that are read from the database together. */
const TOGETHER = 500;

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
  async run({ store, study, now }, { by, names, match, kind }, progress) {
    if (by === 'list' && names.length === 0) throw new StepRefused('The list names nothing.');
    const find: NameFinder = by === 'library' ? libraryNames : listNames(names, match, kind);
    const { query } = store;
    const known = new Map(
      (await query.selectFrom('name').select(['id', 'name_key']).where('study_id', '=', study).execute()).map(
        (row) => [row.name_key, row.id],
      ),
    );
    const before = known.size;
    const pair = query
      .insertInto('message_name')
      .values({ name_id: 0, message_id: 0 })
      .onConflict((c) => c.doNothing())
      .compile();
    const insertPair = store.raw.prepare(pair.sql);
    const { count } = await query
      .selectFrom('message')
      .select((e) => e.fn.countAll<number>().as('count'))
      .where('study_id', '=', study)
      .executeTakeFirstOrThrow();
    const seen = new Set<number>();
    let done = 0;
    let otherLanguages = 0;
    let places = 0;
    for (let last = 0; ;) {
      const texts = await query
        .selectFrom('message as m')
        .leftJoin('message_language as l', 'l.message_id', 'm.id')
        .select(['m.id', 'm.text', 'l.language', 'm.study_id'])
        .where('m.id', '>', last)
        .orderBy('m.id')
        .limit(TOGETHER)
        .execute();
      if (texts.length === 0) break;
      for (const { id, text, language, study_id } of texts) {
        if (study_id !== study) continue;
        done++;
        if (by === 'library' && language !== null && language.length === 2 && language !== 'en') {
          otherLanguages++;
          continue;
        }
        for (const { label, kind: found } of find(text)) {
          const key = nameKey(label);
          let name = known.get(key);
          if (name === undefined) {
            ({ id: name } = await query
              .insertInto('name')
              .values({ study_id: study, name_key: key, label, kind: found })
              .returning('id')
              .executeTakeFirstOrThrow());
            known.set(key, name);
          }
          insertPair.run(name, id);
          seen.add(name);
          places++;
        }
      }
      last = texts[texts.length - 1].id;
      progress('Finding names', count > 0 ? Math.min(1, done / count) : null);
    }
    await query.updateTable('study').set({ changed_at: now }).where('id', '=', study).execute();
    return { messages: done, otherLanguages, names: seen.size, newNames: known.size - before, places };
  },
  describe({ by, names }, result) {
    const how =
      by === 'library'
        ? 'People, organisations and places were looked for by the compromise library (English)'
        : `${counted(names.length, 'name')} of a list were looked for`;
    if (!result) return `${how}.`;
    const others =
      result.otherLanguages > 0
        ? `; ${formatCount(result.otherLanguages)} in other languages were left aside`
        : '';
    return `${how} in ${counted(result.messages, 'message')}${others}: ${counted(result.names, 'name')} in ${counted(result.places, 'place')} of the texts, ${formatCount(result.newNames)} of them new.`;
  },
};
