import type { MessageFilter, Scorer } from '@pebble/contract';
import { dayPhrase, formatCount } from '../words/sentence';

/** What a filter asks of messages, in words: "replies by @mira_f with “harbour”"; "all messages" where it asks nothing. */
export function filterPhrase(filter: MessageFilter): string {
  const { kind, author, mentions, hashtag, text, source, item, language, code, marked, sample, seed } =
    filter;
  const parts = [
    ...(author ? [`by ${author}`] : []),
    ...(mentions ? [`that mention ${mentions}`] : []),
    ...(hashtag ? [`with #${hashtag.replace(/^#/, '')}`] : []),
    ...(text ? [`with “${text}”`] : []),
    ...(source === undefined ? [] : [`of source ${source}`]),
    ...(item ? [`under ${item}`] : []),
    ...(language ? [`in the language ${language}`] : []),
    ...(code ? [`with the code “${code}”`] : []),
    ...(marked ? [marked === 'starred' ? 'with a star' : 'with a note'] : []),
    ...scorePhrase(filter),
    ...periodPart(filter),
    ...(sample === undefined
      ? []
      : [`in a sample of ${formatCount(sample)} drawn with seed ${String(seed ?? 1)}`]),
  ];
  const head = kind ? KINDS[kind] : parts.length > 0 ? 'messages' : 'all messages';
  return [head, ...parts].join(' ');
}

const KINDS: Readonly<Record<NonNullable<MessageFilter['kind']>, string>> = {
  post: 'posts',
  reply: 'replies',
  repost: 'reposts',
  quote: 'quotes',
  comment: 'comments',
  email: 'emails',
};
const SCORES: Readonly<Record<Scorer, string>> = { tone: 'tone', incivility: 'incivility' };

function scorePhrase({ scored, scoreFrom, scoreUntil }: MessageFilter): string[] {
  if (!scored) return [];
  const bounds = [
    ...(scoreFrom === undefined ? [] : [`from ${scoreFrom}`]),
    ...(scoreUntil === undefined ? [] : [`up to ${scoreUntil}`]),
  ];
  return [`with ${SCORES[scored]}${bounds.length > 0 ? ` ${bounds.join(' ')}` : ''}`];
}

function periodPart({ from, until }: MessageFilter): string[] {
  return [
    ...(from === undefined ? [] : [`from ${dayPhrase(from, true)}`]),
    ...(until === undefined ? [] : [`before ${dayPhrase(until, true)}`]),
  ];
}
