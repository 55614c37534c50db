import LinkifyIt from 'linkify-it';
import topLevels from 'tlds' with { type: 'json' };
import type { TextSpan } from '@pebble/contract';
import { SENTENCE_WORDS } from './sentenceWords';

/** Top-level domains that are known (IANA's list), and the one that stands for examples (RFC 2606). */
const finder = new LinkifyIt({ fuzzyLink: true, fuzzyEmail: true, fuzzyIP: false }).tlds([
  ...topLevels,
  'example',
]);

/** A stretch that other finders must leave alone, and whether it is a link or an e-mail address. */
export interface Address {
  readonly start: number;
  readonly end: number;
  readonly link: string | null;
}

/** Nothing in a text can be an address unless it has one of these. Without the Unicode flag, since every text is tried. */
const HINT = /:\/\/|www\.|[^\s@(,;]@[^\s@]|[^\s.]\.[^\s.]{2}/i;

/** Links and e-mail addresses of a text, in order, as the linkify-it library finds them, but for words that only look like a domain. */
export function findAddresses(text: string): Address[] {
  if (!HINT.test(text)) return [];
  const found: Address[] = [];
  // No address holds a space: words without a hint are spared the search.
  for (const { index, 0: word } of text.matchAll(/\S+/g)) {
    if (!HINT.test(word)) continue;
    for (const match of finder.match(word) ?? []) {
      const start = index + match.index;
      // "@name@host.tld" is a handle with its host, not a mail address.
      if (match.schema === 'mailto:' && text[start - 1] === '@') continue;
      if (match.schema === '' && !isDomain(match.raw, text.slice(0, start))) continue;
      const link = match.schema === 'mailto:' ? null : match.url;
      found.push({ start, end: index + match.lastIndex, link });
    }
  }
  return found;
}

/** Endings of files that are top-level domains too. */
const FILE_ENDINGS = new Set(['md', 'mov', 'pl', 'ps', 'py', 'rs', 'sh', 'zip']);

/**
 * Whether a domain without "https://" or "www." is meant as one: it stands by itself, is written in small letters or in large ones throughout
 * ("We won.It was" is a missing space), and where its ending is an English word or that of a file ("README.md"), a path or a further dot must
 * say that it is a domain.
 * @param before the text before it
 */
function isDomain(raw: string, before: string): boolean {
  if (/^www\./i.test(raw)) return true;
  if (/[^\s([{<"'“‘«„:,;|>=]$/u.test(before)) return false;
  const [host] = /^[^/?#:]*/.exec(raw)!;
  if (host !== host.toLowerCase() && host !== host.toUpperCase()) return false;
  const labels = host.toLowerCase().split('.');
  const ending = labels[labels.length - 1];
  return (
    raw.length > host.length || labels.length > 2 || !(SENTENCE_WORDS.has(ending) || FILE_ENDINGS.has(ending))
  );
}

export function linkSpans(addresses: readonly Address[]): TextSpan[] {
  return addresses.flatMap(({ start, end, link }) =>
    link ? [{ start, end, what: 'link' as const, key: link }] : [],
  );
}
