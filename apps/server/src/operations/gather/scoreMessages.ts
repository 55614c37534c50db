import { counted, formatCount } from '@pebble/core';
import { scorers } from '@pebble/core/files';
import { eachText } from '../../storage/messageTexts';
import type { StepDefinition } from '../step';

interface Scored extends Record<string, unknown> {
  readonly messages: number;
  readonly scored: number;
  /** Messages in languages that the scorer does not understand, or whose language cannot be told. */
  readonly notUnderstood: number;
  readonly mean: number;
  /** Messages in which something made a score. */
  readonly withHits: number;
}

/** Gives every message in a language that the scorer understands its score; what was given before is given anew. */
export const scoreMessages: StepDefinition<'score-messages', Scored> = {
  kind: 'score-messages',
  async run({ store, now }, { scorer: name }, progress) {
    const scorer = scorers[name];
    const { query } = store;
    const put = query
      .insertInto('message_score')
      .values({ message_id: 0, scorer: '', value: 0 })
      .onConflict((c) =>
        c.columns(['message_id', 'scorer']).doUpdateSet((e) => ({ value: e.ref('excluded.value') })),
      )
      .compile();
    const insert = store.raw.prepare(put.sql);
    let scored = 0;
    let withHits = 0;
    let sum = 0;
    const messages = await eachText(store, 'Scoring messages', progress, ({ id, text, language }) => {
      if (language === null || !scorer.languages.includes(language.slice(0, 2))) return;
      const { value, hits } = scorer.score(text);
      insert.run(id, name, value);
      scored++;
      sum += value;
      if (value !== 0 || hits.length > 0) withHits++;
    });
    await query.updateTable('study').set({ changed_at: now }).execute();
    return {
      messages,
      scored,
      notUnderstood: messages - scored,
      mean: scored > 0 ? sum / scored : 0,
      withHits,
    };
  },
  describe({ scorer: name }, result) {
    const { source, range, languages } = scorers[name];
    const what = `The ${name} of messages (${range[0]} to ${range[1]}: ${source})`;
    if (!result) return `${what} was to be scored.`;
    const share = result.messages > 0 ? ((100 * result.scored) / result.messages).toFixed(0) : '0';
    return `${what} was scored for ${counted(result.scored, 'message')}, the ${share} % in a language it understands (${languages.join(', ')}); the mean is ${result.mean.toFixed(3)}, and something made a score in ${formatCount(result.withHits)} of them.`;
  },
};
