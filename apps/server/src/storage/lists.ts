import { sql, type RawBuilder, type SqlBool } from 'kysely';

/**
 * A list of numbers or texts as something to select from, however long it is: it is handed over as one value. A value each would end at
 * 32,766 of them.
 */
export function listOf(values: readonly (number | string)[]): RawBuilder<unknown> {
  return sql`(select value from json_each(${JSON.stringify(values)}))`;
}

/** The same for a statement that is prepared by hand; its JSON is bound in its place. */
export const BOUND_LIST = '(select value from json_each(?))';

/** Whether a column holds one of some values, however many they are. @param column as "m.id" */
export function isAmong(column: string, values: readonly (number | string)[]): RawBuilder<SqlBool> {
  return sql<SqlBool>`${sql.ref(column)} in ${listOf(values)}`;
}

/** Whether a column holds none of some values, however many they are. @param column as "m.id" */
export function isNoneOf(column: string, values: readonly (number | string)[]): RawBuilder<SqlBool> {
  return sql<SqlBool>`${sql.ref(column)} not in ${listOf(values)}`;
}
