import type { Addressed, IncomingMessage, SkippedRow } from '@pebble/contract';
import { standardDate } from './dates';
import { htmlToText } from '../text/html';
import { partMail } from '../text/quoted';
import { isObject, list, textOf, type Json } from './activityValues';
import type { SourceSink } from './sourceSink';

/**
 * Takes an Email object of JMAP (RFC 8621, section 4) as a message: its text is what its author wrote; quoted history and signature are
 * kept apart, of attachments only names and sizes.
 */
export function takeJmapEmail(value: unknown, row: number, sink: SourceSink): void {
  const taken = read(value, row);
  if ('reason' in taken) sink.skip(taken);
  else sink.message(taken);
}

function read(value: unknown, row: number): IncomingMessage | SkippedRow {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  if (!isObject(value)) return skip(null, 'The item is no Email object.');
  const [author] = [...people(value['from']), ...people(value['sender'])];
  if (!author) return skip('from', 'The email has no sender.');
  const written = textOf(value['sentAt']) || textOf(value['receivedAt']);
  const time = written === '' ? null : standardDate(written);
  if (time !== null && Number.isNaN(time))
    return skip('sentAt', `The date cannot be read: “${written.slice(0, 40)}”.`);
  const parts = partMail(textBodyOf(value));
  const subject = textOf(value['subject']).trim();
  const parents = [...texts(value['inReplyTo']), ...texts(value['references']).reverse()];
  return {
    key: texts(value['messageId'])[0] ?? textOf(value['id']),
    authorHandle: author.handle,
    authorName: author.name,
    subject: subject || null,
    text: parts.own || subject || '(no text)',
    time,
    kind: 'email',
    parentKey: parents[0] ?? null,
    parentHandle: null,
    addressed: (['to', 'cc', 'bcc'] as const).flatMap((how) =>
      people(value[how]).map((person): Addressed => ({ ...person, how })),
    ),
    hashtags: [],
    link: null,
    itemKey: null,
    numbers: attachmentNumbers(value),
    attributes: attributesOf(value, parts, written),
  };
}

/** Addresses (RFC 8621, section 4.1.2.3) in small letters. */
function people(value: unknown): { handle: string; name: string | null }[] {
  return list(value).flatMap((one) => {
    if (!isObject(one) || textOf(one['email']) === '') return [];
    return [{ handle: textOf(one['email']).trim().toLowerCase(), name: textOf(one['name']).trim() || null }];
  });
}

/** The parts that are shown as text, one after the other; HTML becomes text. */
function textBodyOf(email: Json): string {
  const values = isObject(email['bodyValues']) ? email['bodyValues'] : {};
  return list(email['textBody'])
    .filter(isObject)
    .map((part) => {
      const held = values[textOf(part['partId'])];
      const text = isObject(held) ? textOf(held['value']) : '';
      return textOf(part['type']) === 'text/html' ? htmlToText(text) : text;
    })
    .join('\n');
}

function attachmentNumbers(email: Json): Record<string, number> {
  const attachments = list(email['attachments']).filter(isObject);
  if (attachments.length === 0) return {};
  const size = attachments.reduce((sum, one) => sum + (typeof one['size'] === 'number' ? one['size'] : 0), 0);
  return { attachments: attachments.length, 'attachment bytes': size };
}

function attributesOf(
  email: Json,
  { quoted, signature }: { quoted: string; signature: string },
  date: string,
): Record<string, string> {
  const all: Record<string, string> = {
    quoted,
    signature,
    zone: /(?:Z|[+-]\d\d:\d\d)$/.exec(date)?.[0] ?? '',
    'reply to': people(email['replyTo'])
      .map(({ handle }) => handle)
      .join(' '),
    list: /<([^<>]+)>/.exec(textOf(email['header:List-Id:asText']))?.[1] ?? '',
    references: texts(email['references']).join(' '),
    'attachment names': list(email['attachments'])
      .filter(isObject)
      .map((one) => textOf(one['name']) || 'without a name')
      .join(', '),
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== ''));
}

function texts(value: unknown): string[] {
  return list(value).filter((one): one is string => typeof one === 'string');
}
