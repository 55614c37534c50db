import { hashtagKey, handleKey, parseQuery, type Query } from '@pebble/core';
import { sql, type RawBuilder, type SqlBool } from 'kysely';

/** The condition for messages "m" of a study that fit what a person typed; null when nothing is asked. Throws QueryError. */
export function searchCondition(typed: string): RawBuilder<SqlBool> | null {
  // While one types, the last word may go on.
  const isOpen =
    /[\p{L}\p{N}]$/u.test(typed) && !/(?:^|\s)[#@]\S*$/.test(typed) && !/(?:AND|OR|NOT)$/.test(typed);
  const query = parseQuery(isOpen && !typed.includes('/') ? `${typed}*` : typed);
  return query ? conditionOf(query) : null;
}

function conditionOf(query: Query): RawBuilder<SqlBool> {
  switch (query.what) {
    case 'word':
      return textMatch(`"${query.text.replaceAll('"', '')}"${query.open ? '*' : ''}`);
    case 'phrase':
      return textMatch(`"${query.text}"`);
    case 'link':
      // Links stand in texts as they are; their characters are no words of the full-text index.
      return sql<SqlBool>`(m.text like ${`%${likely(query.text)}%`} escape '\\' or m.link like ${`%${likely(query.text)}%`} escape '\\')`;
    case 'hashtag':
      return sql<SqlBool>`m.id in (select message_id from message_hashtag where hashtag_id =
        (select id from hashtag where tag_key = ${hashtagKey(query.tag)}))`;
    case 'account': {
      const account = sql`(select id from account where handle_key = ${handleKey(query.handle)})`;
      return sql<SqlBool>`(m.author_id = ${account} or m.id in
        (select message_id from address where to_id = ${account} and kinds > 0))`;
    }
    case 'not':
      return sql<SqlBool>`not ${conditionOf(query.part)}`;
    case 'and':
    case 'or': {
      const parts = query.parts.map((part) => conditionOf(part));
      return sql<SqlBool>`(${sql.join(parts, query.what === 'and' ? sql` and ` : sql` or `)})`;
    }
  }
}

function textMatch(expression: string): RawBuilder<SqlBool> {
  return sql<SqlBool>`m.id in (select rowid from message_text where message_text match ${expression})`;
}

function likely(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}
