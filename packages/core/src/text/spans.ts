import type { TextSpan } from '@pebble/contract';
import { findHashtags } from './hashtags';
import { findAddresses, linkSpans, type Address } from './links';
import { findMentions } from './mentions';

/** Mentions, hashtags and links of a text in order of place; none stands inside a link or an e-mail address. */
export function findSpans(text: string): TextSpan[] {
  const addresses = findAddresses(text);
  const mentions = findMentions(text);
  const hashtags = findHashtags(text);
  if (addresses.length === 0 && mentions.length === 0) return hashtags;
  const free = (span: TextSpan): boolean => !addresses.some((a) => overlaps(a, span));
  const spans = [...linkSpans(addresses), ...mentions.filter(free), ...hashtags.filter(free)];
  return spans.sort((a, b) => a.start - b.start);
}

function overlaps(address: Address, span: TextSpan): boolean {
  return span.start < address.end && address.start < span.end;
}
