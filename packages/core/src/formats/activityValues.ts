import { htmlToText } from '../text/html';

/** A JSON object of ActivityStreams. */
export type Json = Readonly<Record<string, unknown>>;

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

export function hostOf(id: string): string {
  return /^https?:\/\/([^/?#]+)/i.exec(id)?.[1].toLowerCase() ?? '';
}

export function contentOf(object: Json): string {
  return htmlToText(naturalOf(object, 'content'));
}

/** A natural language value: the plain one, or the first of its map of languages. */
export function naturalOf(object: Json, name: string): string {
  const plain = textOf(object[name]);
  const map = object[`${name}Map`];
  return plain || !isObject(map) ? plain : textOf(Object.values(map)[0]);
}

export function attributesOf(object: Json): Record<string, string> {
  const map = object['contentMap'];
  const language = isObject(map) ? Object.keys(map)[0] : undefined;
  const type = typeOf(object);
  return {
    ...(language ? { language } : {}),
    ...(type !== 'Note' ? { type } : {}),
    ...(object['sensitive'] === true ? { sensitive: 'true' } : {}),
    ...expandedLinks(object),
  };
}

/** Links that were shortened in the text, each with what it stands for. */
function expandedLinks(object: Json): Record<string, string> {
  const links = list(object['attachment']).flatMap((one) =>
    isObject(one) && typeOf(one) === 'Link' && textOf(one['href']) !== '' && textOf(one['name']) !== ''
      ? [`${textOf(one['name'])} → ${textOf(one['href'])}`]
      : [],
  );
  return links.length > 0 ? { 'expanded links': links.join('\n') } : {};
}

/** Sizes of the collections that hang on an object. */
export function countsOf(object: Json): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const name of ['likes', 'shares', 'replies', 'views']) {
    const collection = object[name];
    const total = isObject(collection) ? collection['totalItems'] : undefined;
    if (typeof total === 'number') counts[name] = total;
    else if (typeof collection === 'number') counts[name] = collection;
  }
  return counts;
}

export function linkOf(object: Json): string | null {
  const url = one(object['url']);
  return (isObject(url) ? textOf(url['href']) : textOf(url)) || null;
}

export function nameOf(actor: unknown): string | null {
  return isObject(actor) ? naturalOf(actor, 'name') || null : null;
}

export function idOf(value: unknown): string | null {
  if (typeof value === 'string') return value || null;
  return isObject(value) ? textOf(value['id']) || textOf(value['href']) || null : null;
}

export function typeOf(object: Json): string {
  return textOf(one(object['type']) ?? object['@type']);
}

export function textOf(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

export function one(value: unknown): unknown {
  return Array.isArray(value) ? (value as unknown[])[0] : value;
}

export function list(value: unknown): unknown[] {
  if (value === undefined || value === null) return [];
  return Array.isArray(value) ? (value as unknown[]) : [value];
}

export function isObject(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
