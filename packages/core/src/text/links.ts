import LinkifyIt from 'linkify-it';
import type { TextSpan } from '@pebble/contract';

const finder = new LinkifyIt({ fuzzyLink: true, fuzzyEmail: true, fuzzyIP: false });

/** A stretch that other finders must leave alone, and whether it is a link or an e-mail address. */
export interface Address {
  readonly start: number;
  readonly end: number;
  readonly link: string | null;
}

/** Nothing in a text can be an address unless it has one of these. Without the Unicode flag, since every text is tried. */
const HINT = /:\/\/|www\.|[^\s@(,;]@[^\s@]|[^\s.]\.[^\s.]{2}/i;

/** Links and e-mail addresses of a text, in order, as the linkify-it library finds them. */
export function findAddresses(text: string): Address[] {
  if (!HINT.test(text)) return [];
  const found: Address[] = [];
  for (const match of finder.match(text) ?? []) {
    // "@name@host.tld" is a handle with its host, not a mail address.
    if (match.schema === 'mailto:' && text[match.index - 1] === '@') continue;
    const link = match.schema === 'mailto:' ? null : match.url;
    found.push({ start: match.index, end: match.lastIndex, link });
  }
  return found;
}

export function linkSpans(addresses: readonly Address[]): TextSpan[] {
  return addresses.flatMap(({ start, end, link }) =>
    link ? [{ start, end, what: 'link' as const, key: link }] : [],
  );
}
