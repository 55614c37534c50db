import type { Addressed, IncomingMessage, MessageKind, SkippedRow } from '@pebble/contract';
import { htmlToText } from '../text/html';

/** Objects of ActivityStreams that are messages. */
const MESSAGES = new Set([
  'Note',
  'Article',
  'Page',
  'Question',
  'Video',
  'Image',
  'Audio',
  'Document',
  'Event',
]);
const PUBLIC = /(?:^|#|:)Public$/;
const COLLECTION = /\/(?:followers|following|outbox|inbox|public)\/?$/;

type Json = Readonly<Record<string, unknown>>;

/** Whether a value looks like an object of ActivityStreams 2.0. */
export function isActivity(value: unknown): boolean {
  if (!isObject(value)) return false;
  const type = typeOf(value);
  const context = JSON.stringify(value['@context'] ?? '');
  if (context.includes('www.w3.org/ns/activitystreams')) return true;
  return (
    (MESSAGES.has(type) && 'content' in value) ||
    (type === 'Announce' && 'object' in value) ||
    (type === 'Create' && isObject(value['object']))
  );
}

/**
 * A message from an ActivityStreams 2.0 object (W3C Recommendation, 2017): Create and Announce activities, and objects such as
 * Note and Article standing alone. Actors are known by their account address (RFC 7565) where it can be told from their id.
 */
export function takeActivity(value: unknown, row: number): IncomingMessage | SkippedRow {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  if (!isObject(value))
    return skip(null, 'The item is only an address; the object itself is not in the file.');
  const type = typeOf(value);
  if (type === 'Tombstone' || type === 'Delete') return skip('type', 'The post was deleted (Tombstone).');
  if (type === 'Announce') return announced(value, row);
  if (type === 'Create' || type === 'Update') {
    const object = one(value['object']);
    if (!isObject(object)) return skip('object', `The ${type} names its object only by address.`);
    return message(object, value, row);
  }
  if (MESSAGES.has(type)) return message(value, null, row);
  return skip('type', `“${type || 'no type'}” is not a kind of message.`);
}

function message(object: Json, activity: Json | null, row: number): IncomingMessage | SkippedRow {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  if (typeOf(object) === 'Tombstone') return skip('type', 'The post was deleted (Tombstone).');
  if (!MESSAGES.has(typeOf(object))) return skip('type', `“${typeOf(object)}” is not a kind of message.`);
  const author = one(object['attributedTo']) ?? (activity && one(activity['actor']));
  const handle = accountOf(author);
  if (handle === null) return skip('attributedTo', 'The object names no author.');
  const written = textOf(object['published']) || (activity ? textOf(activity['published']) : '');
  const time = written === '' ? null : Date.parse(written);
  if (time !== null && Number.isNaN(time))
    return skip('published', `The date cannot be read: “${written.slice(0, 40)}”.`);
  const text = contentOf(object);
  const title = htmlToText(naturalOf(object, 'name') || naturalOf(object, 'summary')) || null;
  if (text === '' && title === null) return skip('content', 'The object has no content.');
  const parent = one(object['inReplyTo']);
  const tags = list(object['tag']).filter(isObject);
  return {
    key: textOf(object['id']) || `row ${row}`,
    authorHandle: handle,
    authorName: nameOf(author),
    subject: text === '' ? null : title,
    text: text === '' ? title! : text,
    time,
    kind: parent ? 'reply' : 'post',
    parentKey: parent ? idOf(parent) : null,
    parentHandle: isObject(parent) ? accountOf(one(parent['attributedTo'])) : null,
    addressed: addressedBy(object, activity, tags, handle),
    hashtags: tags
      .filter((tag) => typeOf(tag) === 'Hashtag')
      .map((tag) => textOf(tag['name']).replace(/^#/, '')),
    link: linkOf(object),
    numbers: countsOf(object),
    attributes: attributesOf(object),
  };
}

/** An Announce passes on another object; what that says counts as the text where it is there. */
function announced(activity: Json, row: number): IncomingMessage | SkippedRow {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  const handle = accountOf(one(activity['actor']));
  if (handle === null) return skip('actor', 'The Announce names no actor.');
  const object = one(activity['object']);
  const parentKey = object ? idOf(object) : null;
  if (parentKey === null) return skip('object', 'The Announce does not say what it passes on.');
  const written = textOf(activity['published']);
  const time = written === '' ? null : Date.parse(written);
  if (time !== null && Number.isNaN(time))
    return skip('published', `The date cannot be read: “${written.slice(0, 40)}”.`);
  const tags = isObject(object) ? list(object['tag']).filter(isObject) : [];
  return {
    key: textOf(activity['id']) || `row ${row}`,
    authorHandle: handle,
    authorName: nameOf(one(activity['actor'])),
    subject: null,
    text: isObject(object) ? contentOf(object) : '',
    time,
    kind: 'repost' satisfies MessageKind,
    parentKey,
    parentHandle: isObject(object) ? accountOf(one(object['attributedTo'])) : null,
    addressed: mentionsIn(tags),
    hashtags: tags
      .filter((tag) => typeOf(tag) === 'Hashtag')
      .map((tag) => textOf(tag['name']).replace(/^#/, '')),
    link: null,
    numbers: {},
    attributes: {},
  };
}

function mentionsIn(tags: readonly Json[]): Addressed[] {
  return tags.flatMap((tag) => {
    if (typeOf(tag) !== 'Mention') return [];
    const handle = accountOf(tag['href']) ?? (textOf(tag['name']).replace(/^@/, '') || null);
    return handle ? [{ handle, name: null, how: 'mention' as const }] : [];
  });
}

/** Mentions by tag, and those in to and cc who are accounts and are not mentioned. */
function addressedBy(
  object: Json,
  activity: Json | null,
  tags: readonly Json[],
  author: string,
): Addressed[] {
  const found = new Map<string, Addressed>(mentionsIn(tags).map((mention) => [mention.handle, mention]));
  for (const how of ['to', 'cc', 'bcc'] as const) {
    for (const target of [...list(object[how]), ...list(activity?.[how])]) {
      const id = idOf(target);
      if (id === null || PUBLIC.test(id) || COLLECTION.test(id)) continue;
      const handle = accountOf(target);
      if (handle && handle !== author && !found.has(handle))
        found.set(handle, { handle, name: nameOf(target), how });
    }
  }
  return [...found.values()];
}

/** "name@host" of an actor; the id itself where it has another form. */
export function accountOf(actor: unknown): string | null {
  const id = idOf(actor);
  const host = id === null ? '' : hostOf(id);
  if (isObject(actor) && textOf(actor['preferredUsername']))
    return host ? `${textOf(actor['preferredUsername'])}@${host}` : textOf(actor['preferredUsername']);
  if (id === null) return isObject(actor) ? textOf(actor['name']) || null : null;
  if (/^acct:/i.test(id)) return id.slice(5);
  const path =
    /^https?:\/\/[^/]+\/(?:@|users\/|user\/|u\/|accounts\/|actors?\/|profile\/)?([^/?#@]+)\/?$/i.exec(id);
  return path && host ? `${decodeURIComponent(path[1])}@${host}` : id;
}

function hostOf(id: string): string {
  return /^https?:\/\/([^/?#]+)/i.exec(id)?.[1].toLowerCase() ?? '';
}

function contentOf(object: Json): string {
  return htmlToText(naturalOf(object, 'content'));
}

/** A natural language value: the plain one, or the first of its map of languages. */
function naturalOf(object: Json, name: string): string {
  const plain = textOf(object[name]);
  const map = object[`${name}Map`];
  return plain || !isObject(map) ? plain : textOf(Object.values(map)[0]);
}

function attributesOf(object: Json): Record<string, string> {
  const map = object['contentMap'];
  const language = isObject(map) ? Object.keys(map)[0] : undefined;
  const type = typeOf(object);
  return {
    ...(language ? { language } : {}),
    ...(type !== 'Note' ? { type } : {}),
    ...(object['sensitive'] === true ? { sensitive: 'true' } : {}),
  };
}

/** Sizes of the collections that hang on an object. */
function countsOf(object: Json): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const name of ['likes', 'shares', 'replies']) {
    const collection = object[name];
    const total = isObject(collection) ? collection['totalItems'] : undefined;
    if (typeof total === 'number') counts[name] = total;
  }
  return counts;
}

function linkOf(object: Json): string | null {
  const url = one(object['url']);
  return (isObject(url) ? textOf(url['href']) : textOf(url)) || null;
}

function nameOf(actor: unknown): string | null {
  return isObject(actor) ? naturalOf(actor, 'name') || null : null;
}

function idOf(value: unknown): string | null {
  if (typeof value === 'string') return value || null;
  return isObject(value) ? textOf(value['id']) || textOf(value['href']) || null : null;
}

function typeOf(object: Json): string {
  return textOf(one(object['type']) ?? object['@type']);
}

function textOf(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

function one(value: unknown): unknown {
  return Array.isArray(value) ? (value as unknown[])[0] : value;
}

function list(value: unknown): unknown[] {
  if (value === undefined || value === null) return [];
  return Array.isArray(value) ? (value as unknown[]) : [value];
}

function isObject(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
