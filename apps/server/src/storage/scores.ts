import { Scorer, type Message, type MessageFilter, type TextSpan } from '@pebble/contract';
import { scorers } from '@pebble/core/files';
import { sql, type RawBuilder, type SqlBool } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';

/** The condition for messages "m" that a scorer gave a value in the asked range; none where nothing is asked. */
export function scoreConditions({ scored, scoreFrom, scoreUntil }: MessageFilter): RawBuilder<SqlBool>[] {
  if (!scored) return [];
  const parts = [
    sql`scorer = ${scored}`,
    ...(scoreFrom === undefined ? [] : [sql`value >= ${scoreFrom}`]),
    ...(scoreUntil === undefined ? [] : [sql`value <= ${scoreUntil}`]),
  ];
  return [sql<SqlBool>`m.id in (select message_id from message_score where ${sql.join(parts, sql` and `)})`];
}

/** Adds to messages what scorers gave them, and marks the words that made the scores. */
export async function withScores(
  { query }: Store,
  messages: readonly Message[],
  marks?: Scorer,
): Promise<Message[]> {
  if (messages.length === 0) return [];
  const rows = await query
    .selectFrom('message_score')
    .selectAll()
    .where(
      isAmong(
        'message_id',
        messages.map(({ id }) => id),
      ),
    )
    .orderBy('scorer', 'desc')
    .execute();
  if (rows.length === 0) return [...messages];
  return messages.map((message) => {
    const scores = rows
      .filter((row) => row.message_id === message.id)
      .map(({ scorer, value }) => ({ scorer: Scorer.parse(scorer), value }));
    const shown = marks ? scores.filter(({ scorer }) => scorer === marks) : scores;
    return {
      ...message,
      scores,
      spans: shown.reduce((spans, { scorer }) => marked(spans, message.text, scorer), message.spans),
    };
  });
}

/** Stretches of a text with the words that made a score, where nothing else stands. */
function marked(spans: readonly TextSpan[], text: string, scorer: Scorer): TextSpan[] {
  const hits = scorers[scorer].score(text).hits.map(({ start, end, weight }): TextSpan => ({
    start,
    end,
    what: 'score',
    key: `${scorer} ${weight > 0 ? '+' : '−'}${Math.abs(weight).toLocaleString('en', { maximumFractionDigits: 2 })}`,
  }));
  const free = hits.filter((hit) => !spans.some((span) => hit.start < span.end && span.start < hit.end));
  return [...spans, ...free].sort((a, b) => a.start - b.start);
}

/** Scorers that gave something to messages of a study. */
export async function scorersOf({ query }: Store): Promise<Scorer[]> {
  const found = await Promise.all(
    Scorer.options.map((scorer) =>
      query
        .selectFrom('message_score as s')
        .innerJoin('message as m', 'm.id', 's.message_id')
        .select('s.scorer')
        .where('s.scorer', '=', scorer)
        .limit(1)
        .executeTakeFirst(),
    ),
  );
  return Scorer.options.filter((_, i) => found[i] !== undefined);
}
