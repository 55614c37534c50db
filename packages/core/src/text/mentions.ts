import type { TextSpan } from '@pebble/contract';
import { findSigned, type SignedWord } from './signed';
import { SENTENCE_WORDS } from './sentenceWords';

/** "@name" or "@name@host.tld" that does not stand inside a word, an address or a path. */
const MENTION: SignedWord = {
  what: 'mention',
  sign: /[@＠]/g,
  inside: /[\p{L}\p{N}_@/.&+-]/u,
  body: /([\p{L}\p{N}_](?:[\p{L}\p{N}_.-]*[\p{L}\p{N}_])?)(?:@([\p{L}\p{N}](?:[\p{L}\p{N}.-]*[\p{L}\p{N}])?\.[\p{L}]{2,}))?/uy,
  key: ([, name, host]) => (host ? `${name}@${host}` : upToSentence(name)),
};

/** A name without what begins a new sentence behind a missing space: "@bob.It is" names bob. */
function upToSentence(name: string): string {
  for (const { index } of name.matchAll(/(?<=[\p{Ll}\p{N}_])\.(?=\p{Lu})/gu)) {
    const [next] = /^[^.]*/.exec(name.slice(index + 1))!;
    if (/^\p{Ll}/u.test(name) || SENTENCE_WORDS.has(next.toLowerCase())) return name.slice(0, index);
  }
  return name;
}

/** Mentions of a text, in order; the key is the handle without its sign, with its host where it has one. */
export function findMentions(text: string): TextSpan[] {
  return findSigned(text, MENTION);
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
