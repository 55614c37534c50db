import type { TakenMessages } from '@pebble/contract';
import { sql, type SqlBool } from 'kysely';
import { isNoneOf } from './lists';
import { fitting, messageIds, type Condition } from './messageFilter';
import type { Store } from './open';

type Choice = Pick<TakenMessages, 'only' | 'except' | 'withoutSources'>;

/** The condition for messages "m" that a weave takes; null where it takes all of its period. */
export function takenCondition(store: Store, { only, except, withoutSources }: Choice): Condition | null {
  const parts = [
    ...(only ? fitting(store, only.filter) : []),
    ...(except ? [sql<SqlBool>`not (${sql.join(fitting(store, except.filter), sql` and `)})`] : []),
    ...(withoutSources.length > 0
      ? [
          isNoneOf(
            'm.source_id',
            withoutSources.map(({ id }) => id),
          ),
        ]
      : []),
  ];
  return parts.length === 0 ? null : sql<SqlBool>`(${sql.join(parts, sql` and `)})`;
}

/** Which messages a weave takes; null where it takes all of its period. */
export function readTaken(store: Store, choice: Choice): ((message: number) => boolean) | null {
  const condition = takenCondition(store, choice);
  if (!condition) return null;
  const taken = new Set(messageIds(store, [condition]));
  return (message) => taken.has(message);
}
