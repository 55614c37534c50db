/** What messages are looked for. Words that stand side by side must all occur. */
export type Query =
  | {
      readonly what: 'word';
      readonly text: string;
      /** Whether it may go on, "lamp*". */ readonly open: boolean;
    }
  | { readonly what: 'phrase'; readonly text: string }
  | { readonly what: 'hashtag'; readonly tag: string }
  | { readonly what: 'account'; readonly handle: string }
  | { readonly what: 'link'; readonly text: string }
  | { readonly what: 'and' | 'or'; readonly parts: readonly Query[] }
  | { readonly what: 'not'; readonly part: Query };

/** A query that cannot be understood, in a sentence with the place. */
export class QueryError extends Error {
  constructor(
    /** The sentence without the place. */
    readonly bare: string,
    /** Place of the character, from 1. */
    readonly place: number,
  ) {
    super(`${bare} (at character ${place})`);
  }
}

interface Token {
  readonly kind: '(' | ')' | 'AND' | 'OR' | 'NOT' | 'term';
  readonly text: string;
  readonly quoted: boolean;
  readonly place: number;
}

const DEEPEST = 50;
/** Words and the like in one query at most. */
const MOST_TERMS = 200;
const LINK = /^(?:https?:\/\/\S+|(?:[\p{L}\p{N}-]+\.)+[\p{L}]{2,}(?:\/\S*)?)$/u;
const HAS_LETTER = /[\p{L}\p{N}]/u;

/**
 * Reads a query: words, "phrases", #hashtags, @accounts, links, with AND, OR and NOT (in capitals) and parentheses. AND binds more
 * tightly than OR and may be left out; "-word" is short for NOT word, "lamp*" finds words that begin so. Null when nothing is asked.
 * Throws QueryError.
 */
export function parseQuery(typed: string): Query | null {
  const tokens = cut(typed);
  if (tokens.length === 0) return null;
  let at = 0;
  const isNext = (kind: Token['kind']): boolean => tokens[at]?.kind === kind;

  const either = (depth: number): Query => {
    const parts = [all(depth)];
    while (isNext('OR')) {
      at++;
      parts.push(all(depth));
    }
    return parts.length === 1 ? parts[0] : { what: 'or', parts };
  };
  const all = (depth: number): Query => {
    const parts = [one(depth)];
    while (at < tokens.length && !isNext('OR') && !isNext(')')) {
      if (isNext('AND')) at++;
      parts.push(one(depth));
    }
    return parts.length === 1 ? parts[0] : { what: 'and', parts };
  };
  const one = (depth: number): Query => {
    const token = tokens[at++];
    if (!token) throw new QueryError('Something is missing at the end', typed.length + 1);
    if (depth > DEEPEST) throw new QueryError('The query is nested too deeply', token.place);
    switch (token.kind) {
      case 'NOT':
        return { what: 'not', part: one(depth + 1) };
      case '(': {
        const inside = either(depth + 1);
        if (!isNext(')')) throw new QueryError('A parenthesis is not closed', token.place);
        at++;
        return inside;
      }
      case 'term':
        return term(token);
      default:
        throw new QueryError(`“${token.text}” stands where a word is expected`, token.place);
    }
  };

  const query = either(0);
  if (at < tokens.length)
    throw new QueryError('A parenthesis is closed that was not opened', tokens[at].place);
  return query;
}

function term({ text, quoted }: Token): Query {
  if (quoted) return { what: 'phrase', text };
  if (/^[#＃]./.test(text)) return { what: 'hashtag', tag: text.slice(1) };
  if (/^[@＠]./.test(text)) return { what: 'account', handle: text.slice(1) };
  if (LINK.test(text)) return { what: 'link', text };
  return text.endsWith('*')
    ? { what: 'word', text: text.slice(0, -1), open: true }
    : { what: 'word', text, open: false };
}

const PIECE = /\s+|([()])|(-?)"([^"]*)("?)|([^\s()"]+)/gy;

function cut(typed: string): Token[] {
  const tokens: Token[] = [];
  let terms = 0;
  const strange = typed.indexOf('\u0000');
  if (strange >= 0) throw new QueryError('A character that is no text cannot be looked for', strange + 1);
  PIECE.lastIndex = 0;
  for (let match = PIECE.exec(typed); match; match = PIECE.exec(typed)) {
    const [, mark, minus, phrase, closing, word] = match;
    const place = match.index + 1;
    const push = (kind: Token['kind'], text: string, quoted = false): void => {
      if (kind === 'term' && ++terms > MOST_TERMS)
        throw new QueryError(`At most ${MOST_TERMS} words are looked for at once`, place);
      tokens.push({ kind, text, quoted, place });
    };
    if (mark) push(mark as '(' | ')', mark);
    else if (phrase !== undefined) {
      if (closing === '') throw new QueryError('A quotation mark is not closed', place);
      if (minus) push('NOT', '-');
      if (HAS_LETTER.test(phrase)) push('term', phrase, true);
      else if (minus) tokens.pop();
    } else if (word === 'AND' || word === 'OR' || word === 'NOT') push(word, word);
    else if (word?.startsWith('-') && HAS_LETTER.test(word)) {
      push('NOT', '-');
      push('term', word.slice(1));
    } else if (word !== undefined && HAS_LETTER.test(word)) push('term', word);
  }
  return tokens;
}
