import type { Progress } from '../steps/step';
import type { Store } from './open';

/** Messages that are read from the database together. */
const TOGETHER = 1000;

export interface MessageText {
  readonly id: number;
  readonly text: string;
  /** BCP 47; null where it was not looked for. */
  readonly language: string | null;
}

/** Hands on the text of every message of a study, with progress; gives back how many there were. */
export async function eachText(
  { query }: Store,
  study: string,
  phase: string,
  progress: Progress,
  onText: (message: MessageText) => Promise<void> | void,
): Promise<number> {
  const { count } = await query
    .selectFrom('message')
    .select((e) => e.fn.countAll<number>().as('count'))
    .where('study_id', '=', study)
    .executeTakeFirstOrThrow();
  let done = 0;
  for (let last = 0; ;) {
    // The study is looked at here: asked for in the database, an index of it would be read and sorted anew for each part.
    const texts = await query
      .selectFrom('message as m')
      .leftJoin('message_language as l', 'l.message_id', 'm.id')
      .select(['m.id', 'm.text', 'm.study_id', 'l.language'])
      .where('m.id', '>', last)
      .orderBy('m.id')
      .limit(TOGETHER)
      .execute();
    if (texts.length === 0) return done;
    for (const { id, text, language, study_id } of texts) {
      if (study_id !== study) continue;
      done++;
      await onText({ id, text, language });
    }
    last = texts[texts.length - 1].id;
    progress(phase, count > 0 ? Math.min(1, done / count) : null);
  }
}
