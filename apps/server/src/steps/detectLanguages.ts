import { formatCount } from '@pebble/core';
import { languageCode, languageDetector, UNTOLD } from '@pebble/core/files';
import { RowInserter } from '../db/load/rowInserter';
import type { StepDefinition } from './step';

/** Messages that are read from the database together. */
const TOGETHER = 5000;

interface Detected extends Record<string, unknown> {
  readonly messages: number;
  /** Messages whose source said the language. */
  readonly given: number;
  readonly untold: number;
  readonly languages: readonly { code: string; messages: number }[];
}

/** Finds the language of each message of a source; where the source says it, that holds. */
export const detectLanguages: StepDefinition<'detect-languages', Detected> = {
  kind: 'detect-languages',
  async run({ store }, { source }, progress) {
    const { query } = store;
    // The study is left out on purpose: with it, an index of the study would be read and sorted anew for each part.
    const wanted = query
      .selectFrom('message as m')
      .where('m.source_id', '=', source)
      .where((e) =>
        e.not(
          e.exists(
            e
              .selectFrom('message_language as l')
              .select('l.message_id')
              .whereRef('l.message_id', '=', 'm.id'),
          ),
        ),
      );
    const { count } = await wanted
      .select((e) => e.fn.countAll<number>().as('count'))
      .executeTakeFirstOrThrow();
    const detectLanguage = await languageDetector();
    const rows = new RowInserter(store, 'message_language', ['message_id', 'language', 'how']);
    const found = new Map<string, number>();
    let given = 0;
    let done = 0;
    for (let last = 0; ;) {
      const texts = await wanted
        .select(['m.id', 'm.text', 'm.more'])
        .where('m.id', '>', last)
        .orderBy('m.id')
        .limit(TOGETHER)
        .execute();
      if (texts.length === 0) break;
      for (const { id, text, more } of texts) {
        const told = more === null ? null : givenLanguage(more);
        if (told !== null) given++;
        const language = told ?? detectLanguage(text);
        found.set(language, (found.get(language) ?? 0) + 1);
        rows.add(id, language, told === null ? 'found' : 'given');
      }
      last = texts[texts.length - 1].id;
      done += texts.length;
      progress('Finding languages', count > 0 ? done / count : null);
    }
    rows.flush();
    return {
      messages: done,
      given,
      untold: found.get(UNTOLD) ?? 0,
      languages: [...found]
        .filter(([code]) => code !== UNTOLD)
        .map(([code, messages]) => ({ code, messages }))
        .sort((a, b) => b.messages - a.messages || (a.code < b.code ? -1 : 1)),
    };
  },
  describe(_, result) {
    if (!result) return 'The languages of the messages were to be found.';
    const shown = result.languages
      .slice(0, 5)
      .map(({ code, messages }) => `${code} ${formatCount(messages)}`);
    const given = result.given > 0 ? `; ${formatCount(result.given)} as their source says` : '';
    return `Languages of ${formatCount(result.messages)} messages: ${shown.join(', ') || 'none could be told'}${given}, the others found from their letter sequences; of ${formatCount(result.untold)} it cannot be told.`;
  },
};

/** The language that a message's source gave. */
function givenLanguage(more: string): string | null {
  if (!more.includes('"language"')) return null;
  const { attributes } = JSON.parse(more) as { attributes?: Record<string, string> };
  return attributes?.['language'] ? languageCode(attributes['language']) : null;
}
