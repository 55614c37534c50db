import type {
  Addressed,
  IncomingFollow,
  IncomingItem,
  IncomingMessage,
  IncomingProfile,
  MessageKind,
  SkippedRow,
} from '@pebble/contract';
import { standardDate } from './dates';
import { htmlToText } from '../text/html';
import {
  accountOf,
  attributesOf,
  contentOf,
  countsOf,
  idOf,
  isObject,
  linkOf,
  list,
  nameOf,
  naturalOf,
  one,
  textOf,
  typeOf,
  type Json,
} from './activityValues';
import { tellsAnything } from './profiles';
import type { SourceSink } from './sourceSink';

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
/** Objects that messages stand under, where they have a name. */
const ITEMS = new Set(['Video', 'Audio', 'Image', 'Document', 'Event', 'Page']);
const ACTORS = new Set(['Person', 'Organization', 'Group', 'Service', 'Application']);
const PUBLIC = /(?:^|#|:)Public$/;
const COLLECTION = /\/(?:followers|following|outbox|inbox|public)\/?$/;

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
 * Takes an ActivityStreams 2.0 object (W3C Recommendation, 2017): Create and Announce activities, and objects such as Note and Article
 * standing alone, as messages; videos and the like as items; Follow activities; actors as profiles. Actors are known by their account
 * address (RFC 7565) where it can be told from their id.
 */
export function takeActivity(value: unknown, row: number, sink: SourceSink): void {
  const skip = (field: string | null, reason: string): void => sink.skip({ row, field, reason });
  if (!isObject(value)) {
    skip(null, 'The item is only an address; the object itself is not in the file.');
    return;
  }
  const type = typeOf(value);
  if (type === 'Tombstone' || type === 'Delete') skip('type', 'The post was deleted (Tombstone).');
  else if (type === 'Announce') give(announced(value, row), sink.message.bind(sink), sink);
  else if (type === 'Create' || type === 'Update') {
    const object = one(value['object']);
    if (isObject(object)) takeObject(object, value, row, sink);
    else skip('object', `The ${type} names its object only by address.`);
  } else if (type === 'Follow') give(followed(value, row), sink.follow.bind(sink), sink);
  else if (ACTORS.has(type)) give(profiled(value, row), sink.profile.bind(sink), sink);
  else if (MESSAGES.has(type)) takeObject(value, null, row, sink);
  else skip('type', `“${type || 'no type'}” is not a kind of message.`);
}

function takeObject(object: Json, activity: Json | null, row: number, sink: SourceSink): void {
  if (ITEMS.has(typeOf(object)) && naturalOf(object, 'name') !== '')
    give(itemOf(object, activity, row), sink.item.bind(sink), sink);
  else give(message(object, activity, row), sink.message.bind(sink), sink);
}

function give<T extends object>(taken: T | SkippedRow, to: (taken: T) => void, sink: SourceSink): void {
  if ('reason' in taken) sink.skip(taken);
  else to(taken);
}

function itemOf(object: Json, activity: Json | null, row: number): IncomingItem | SkippedRow {
  const key = textOf(object['id']);
  if (key === '') return { row, field: 'id', reason: 'The item has no id.' };
  const time = dateOf(object, activity, row);
  if (typeof time === 'object' && time !== null) return time;
  const owner = one(object['attributedTo']) ?? (activity && one(activity['actor']));
  return {
    key,
    title: htmlToText(naturalOf(object, 'name')),
    channelHandle: accountOf(owner),
    channelName: nameOf(owner),
    text: contentOf(object) || htmlToText(naturalOf(object, 'summary')),
    time,
    link: linkOf(object),
    numbers: countsOf(object),
    attributes: attributesOf(object),
  };
}

function followed(activity: Json, row: number): IncomingFollow | SkippedRow {
  const actor = one(activity['actor']);
  const follower = accountOf(actor);
  if (follower === null) return { row, field: 'actor', reason: 'The Follow names no actor.' };
  const target = accountOf(one(activity['object']));
  if (target === null) return { row, field: 'object', reason: 'The Follow does not say who is followed.' };
  const profile = isObject(actor) ? profiled(actor, row) : null;
  return {
    follower,
    followerName: nameOf(actor),
    followed: target,
    profile: profile && 'profile' in profile && tellsAnything(profile.profile) ? profile.profile : null,
  };
}

function profiled(actor: Json, row: number): IncomingProfile | SkippedRow {
  const handle = accountOf(actor);
  if (handle === null) return { row, field: 'id', reason: 'The account has no id.' };
  const joined = standardDate(textOf(actor['published']));
  const place = one(actor['location']);
  const numbers: Record<string, number> = {};
  for (const [name, collection] of [
    ['followers', actor['followers']],
    ['following', actor['following']],
    ['posts', actor['outbox']],
  ] as const)
    if (isObject(collection) && typeof collection['totalItems'] === 'number')
      numbers[name] = collection['totalItems'];
  return {
    row,
    handle,
    name: nameOf(actor),
    profile: {
      joined: Number.isNaN(joined) ? null : joined,
      location: isObject(place) ? naturalOf(place, 'name') || null : textOf(place) || null,
      description: htmlToText(naturalOf(actor, 'summary')) || null,
      numbers,
      attributes: typeOf(actor) === 'Person' || typeOf(actor) === '' ? {} : { type: typeOf(actor) },
    },
  };
}

/** When an object was published; a reason to skip it where that is no date. */
function dateOf(object: Json, activity: Json | null, row: number): number | null | SkippedRow {
  const written = textOf(object['published']) || (activity ? textOf(activity['published']) : '');
  const time = written === '' ? null : standardDate(written);
  if (time === null || !Number.isNaN(time)) return time;
  return { row, field: 'published', reason: `The date cannot be read: “${written.slice(0, 40)}”.` };
}

function message(object: Json, activity: Json | null, row: number): IncomingMessage | SkippedRow {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  if (typeOf(object) === 'Tombstone') return skip('type', 'The post was deleted (Tombstone).');
  if (!MESSAGES.has(typeOf(object))) return skip('type', `“${typeOf(object)}” is not a kind of message.`);
  const author = one(object['attributedTo']) ?? (activity && one(activity['actor']));
  const handle = accountOf(author);
  if (handle === null) return skip('attributedTo', 'The object names no author.');
  const time = dateOf(object, activity, row);
  if (typeof time === 'object' && time !== null) return time;
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
    itemKey: null,
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
  const time = dateOf(activity, null, row);
  if (typeof time === 'object' && time !== null) return time;
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
    itemKey: null,
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
