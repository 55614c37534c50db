import type { TextSpan } from '@pebble/contract';

/** "@name" or "@name@host.tld" that does not stand inside a word, an address or a path. */
const MENTION =
  /(?<![\p{L}\p{N}_@/.&+-])[@＠]([\p{L}\p{N}_](?:[\p{L}\p{N}_.-]*[\p{L}\p{N}_])?)(?:@([\p{L}\p{N}](?:[\p{L}\p{N}.-]*[\p{L}\p{N}])?\.[\p{L}]{2,}))?/gu;

/** Mentions of a text, in order; the key is the handle without its sign, with its host where it has one. */
export function findMentions(text: string): TextSpan[] {
  if (!/[@＠]/.test(text)) return [];
  const found: TextSpan[] = [];
  for (const match of text.matchAll(MENTION)) {
    const key = match[2] ? `${match[1]}@${match[2]}` : match[1];
    found.push({ start: match.index, end: match.index + match[0].length, what: 'mention', key });
  }
  return found;
}

/** A handle as it is compared: without the sign, without case, trimmed. */
export function handleKey(handle: string): string {
  return handle
    .trim()
    .replace(/^[@＠]+/, '')
    .normalize('NFKC')
    .toLowerCase();
}

/** A handle as it is shown: without the sign. */
export function cleanHandle(handle: string): string {
  return handle.trim().replace(/^[@＠]+/, '');
}
