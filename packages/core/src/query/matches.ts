import { hashtagKey } from '../text/hashtags';
import { handleKey } from '../text/mentions';
import { findSpans } from '../text/spans';
import type { Query } from './parseQuery';

/** What a query is tried on. */
export interface Searched {
  readonly text: string;
  readonly author: string;
}

/** Whether a message fits a query: words without case, whole or by their beginnings; phrases as words side by side. */
export function matches(query: Query, message: Searched): boolean {
  switch (query.what) {
    case 'and':
      return query.parts.every((part) => matches(part, message));
    case 'or':
      return query.parts.some((part) => matches(part, message));
    case 'not':
      return !matches(query.part, message);
    case 'word':
      return wordsOf(message.text).some((word) =>
        query.open ? word.startsWith(fold(query.text)) : word === fold(query.text),
      );
    case 'phrase':
      return ` ${wordsOf(message.text).join(' ')} `.includes(` ${wordsOf(query.text).join(' ')} `);
    case 'link':
      return message.text.toLowerCase().includes(query.text.toLowerCase());
    case 'hashtag':
      return findSpans(message.text).some(
        ({ what, key }) => what === 'hashtag' && hashtagKey(key) === hashtagKey(query.tag),
      );
    case 'account':
      return (
        handleKey(message.author) === handleKey(query.handle) ||
        findSpans(message.text).some(
          ({ what, key }) => what === 'mention' && handleKey(key) === handleKey(query.handle),
        )
      );
  }
}

function wordsOf(text: string): string[] {
  return fold(text).match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** Without case and accents, as the full-text index compares. */
function fold(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
