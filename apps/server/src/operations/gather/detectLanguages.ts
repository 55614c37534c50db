import { counted, formatCount } from '@pebble/core';
import { languageCode, languageDetector, UNTOLD } from '@pebble/core/files';
import { RowInserter } from '../../storage/load/rowInserter';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

/** Messages that are read from the database together. */
const TOGETHER = 5000;

interface Detected extends Record<string, unknown> {
  readonly messages: number;
  /** Messages whose source said the language. */
  readonly given: number;
  readonly untold: number;
  readonly languages: readonly { code: string; messages: number }[];
}

/** Languages of messages as they were found, before they are written down. */
interface Languages {
  readonly message: Float64Array;
  /** Place of the language among the codes. */
  readonly language: Uint16Array;
  /** 1 where the source said it. */
  readonly given: Uint8Array;
  readonly codes: readonly string[];
}

/** Finds the language of each message of a source; where the source says it, that holds. */
export const detectLanguages: StepDefinition<'detect-languages', Detected, Languages> = {
  kind: 'detect-languages',
  async prepare({ store }, { source }, progress) {
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
    const codes: string[] = [];
    const placeOf = new Map<string, number>();
    const message = new Float64Array(count);
    const language = new Uint16Array(count);
    const given = new Uint8Array(count);
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
        if (done === count) break;
        const told = more === null ? null : givenLanguage(more);
        const code = told ?? detectLanguage(text);
        let place = placeOf.get(code);
        if (place === undefined) placeOf.set(code, (place = codes.push(code) - 1));
        message[done] = id;
        language[done] = place;
        given[done++] = told === null ? 0 : 1;
      }
      last = texts[texts.length - 1].id;
      progress('Finding languages', count > 0 ? done / count : null);
    }
    return { message: message.slice(0, done), language, given, codes };
  },
  async run({ store }, { source }, progress, { message, language, given, codes }) {
    progress('Writing languages down', null);
    const { removed_at } = await store.query
      .selectFrom('source')
      .select('removed_at')
      .where('id', '=', source)
      .executeTakeFirstOrThrow();
    if (removed_at !== null)
      throw new StepRefused('The source was taken out before the languages of its messages were found.');
    const known = new Set(
      store.raw
        .prepare(
          'select l.message_id from message_language l join message m on m.id = l.message_id where m.source_id = ?',
        )
        .pluck()
        .all(source) as number[],
    );
    const rows = new RowInserter(store, 'message_language', ['message_id', 'language', 'how']);
    const found = new Array<number>(codes.length).fill(0);
    let told = 0;
    for (let i = 0; i < message.length; i++) {
      // Somebody may have set one by hand in the meantime.
      if (known.has(message[i])) continue;
      rows.add(message[i], codes[language[i]], given[i] === 1 ? 'given' : 'found');
      found[language[i]]++;
      told += given[i];
    }
    rows.flush();
    return {
      messages: found.reduce((sum, messages) => sum + messages, 0),
      given: told,
      untold: found[codes.indexOf(UNTOLD)] ?? 0,
      languages: codes
        .map((code, at) => ({ code, messages: found[at] }))
        .filter(({ code, messages }) => code !== UNTOLD && messages > 0)
        .sort((a, b) => b.messages - a.messages || (a.code < b.code ? -1 : 1)),
    };
  },
  describe(_, result) {
    if (!result) return 'The languages of the messages were to be found.';
    const { messages, given, untold, languages } = result;
    if (messages === 0) return 'No message was without a language.';
    const shown = languages.slice(0, 5).map(({ code, messages: some }) => `${code} ${formatCount(some)}`);
    const found = 'found from their letter sequences';
    const how =
      given === messages
        ? 'as their source says'
        : given > 0
          ? `${formatCount(given)} as their source says, the others ${found}`
          : found;
    const rest = untold > 0 ? `; of ${formatCount(untold)} it cannot be told` : '';
    return `Languages of ${counted(messages, 'message')}: ${shown.join(', ') || 'none could be told'}; ${how}${rest}.`;
  },
};

/** The language that a message's source gave. */
function givenLanguage(more: string): string | null {
  if (!more.includes('"language"')) return null;
  const { attributes } = JSON.parse(more) as { attributes?: Record<string, string> };
  return attributes?.['language'] ? languageCode(attributes['language']) : null;
}
