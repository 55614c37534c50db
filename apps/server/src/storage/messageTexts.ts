import type { Progress } from '../threads/progress';
import type { Store } from './open';

/** Messages that are read from the database together. */
const TOGETHER = 1000;

interface MessageText {
  readonly id: number;
  readonly text: string;
  /** BCP 47; null where it was not looked for. */
  readonly language: string | null;
}

/** Hands on the text of every message of a study, with progress; gives back how many there were. */
export async function eachText(
  { query }: Store,
  phase: string,
  progress: Progress,
  onText: (message: MessageText) => Promise<void> | void,
): Promise<number> {
  const { count } = await query
    .selectFrom('message')
    .select((e) => e.fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  let done = 0;
  for (let last = 0; ;) {
    const texts = await query
      .selectFrom('message as m')
      .leftJoin('message_language as l', 'l.message_id', 'm.id')
      .select(['m.id', 'm.text', 'l.language'])
      .where('m.id', '>', last)
      .orderBy('m.id')
      .limit(TOGETHER)
      .execute();
    if (texts.length === 0) return done;
    for (const { id, text, language } of texts) {
      done++;
      await onText({ id, text, language });
      // What is done with one text may take long.
      progress(phase, Math.min(1, done / count));
    }
    last = texts[texts.length - 1].id;
    progress(phase, count > 0 ? Math.min(1, done / count) : null);
  }
}

/** Letters of a text that stand for it. */
const BEGINNING = 48;

/** What messages are called: who wrote, and how it begins. */
export function messageLabels({ raw }: Pick<Store, 'raw'>): (message: number) => string {
  const find = raw
    .prepare(`select a.handle, m.text from message m join account a on a.id = m.author_id where m.id = ?`)
    .raw();
  return (message) => {
    const [handle, text] = (find.get(message) ?? ['', '']) as [string, string];
    const line = text.replace(/\s+/g, ' ').trim();
    const beginning =
      [...line].length > BEGINNING
        ? `${[...line]
            .slice(0, BEGINNING - 1)
            .join('')
            .trimEnd()}…`
        : line;
    return `${handle}: ${beginning}`;
  };
}
