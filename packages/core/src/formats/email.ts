import PostalMime, { type Address, type Email } from 'postal-mime';
import type { Addressed, IncomingMessage, SkippedRow } from '@pebble/contract';
import { htmlToText } from '../text/html';
import { partMail } from '../text/quoted';
import { mailDate } from './dates';
import type { RawMail } from './mbox';

/**
 * A message from an email (RFC 5322, MIME), read by the postal-mime library: encoded words, charsets and flowed text are
 * resolved. Its text is what its author wrote; quoted history and signature are kept apart. Of attachments only names and
 * sizes are kept.
 */
export async function takeEmail({ row, bytes }: RawMail): Promise<IncomingMessage | SkippedRow> {
  const skip = (field: string | null, reason: string): SkippedRow => ({ row, field, reason });
  if (!/^[!-9;-~]+[ \t]*:/m.test(bytes.slice(0, 4000)))
    return skip(null, 'This is no email: it has no header lines.');
  let email: Email;
  try {
    email = await PostalMime.parse(toBytes(bytes), { attachmentEncoding: 'arraybuffer' });
  } catch (error) {
    return skip(null, `The email cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  }
  const senders = people(email.from ? [email.from] : []);
  const author = senders[0] ?? people(email.sender ? [email.sender] : [])[0];
  if (!author) return skip('From', 'The email has no sender.');
  const dateLine = headerOf(email, 'date');
  const time = dateLine === '' ? null : mailDate(dateLine);
  if (dateLine !== '' && time === null)
    return skip('Date', `The date cannot be read: “${dateLine.slice(0, 40)}”.`);
  const parts = partMail(email.text ?? htmlToText(email.html ?? ''));
  const subject = email.subject?.trim() ?? '';
  const parents = [...ids(email.inReplyTo), ...ids(email.references).reverse()];
  const text = parts.own || (subject === '' ? '(no text)' : subject);
  return {
    key: ids(email.messageId)[0] ?? `mail ${row} ${dateLine} ${author.handle}`,
    authorHandle: author.handle,
    authorName: author.name,
    subject: subject || null,
    text,
    time,
    kind: 'email',
    parentKey: parents[0] ?? null,
    parentHandle: null,
    addressed: [...sent(email.to, 'to'), ...sent(email.cc, 'cc'), ...sent(email.bcc, 'bcc')],
    hashtags: [],
    link: null,
    itemKey: null,
    numbers: attachmentNumbers(email),
    attributes: attributesOf(email, parts, dateLine),
  };
}

interface Person {
  readonly handle: string;
  readonly name: string | null;
}

/** Addresses with their names; those of a group stand for themselves. */
function people(addresses: readonly Address[] | undefined): Person[] {
  return (addresses ?? []).flatMap((one) => {
    const members = one.group ?? [one];
    return members.flatMap(({ address, name }) =>
      address ? [{ handle: bareAddress(address), name: name?.trim() || null }] : [],
    );
  });
}

/** An address without the comments that RFC 5322 allows inside of it, in small letters. */
function bareAddress(address: string): string {
  return address
    .replace(/\([^()]*\)/g, '')
    .replace(/\s+/g, '')
    .toLowerCase();
}

function sent(addresses: readonly Address[] | undefined, how: Addressed['how']): Addressed[] {
  return people(addresses).map((person) => ({ ...person, how }));
}

/** Message ids without their angle brackets. */
function ids(line: string | undefined): string[] {
  return [...(line ?? '').matchAll(/<([^<>\s]+)>/g)].map(([, id]) => id);
}

function headerOf(email: Email, name: string): string {
  return email.headers.find(({ key }) => key === name)?.value.trim() ?? '';
}

function attachmentNumbers({ attachments }: Email): Record<string, number> {
  if (attachments.length === 0) return {};
  const size = attachments.reduce((sum, { content }) => sum + sizeOf(content), 0);
  return { attachments: attachments.length, 'attachment bytes': size };
}

function sizeOf(content: ArrayBuffer | Uint8Array | string): number {
  return typeof content === 'string' ? content.length : content.byteLength;
}

function attributesOf(
  email: Email,
  parts: { quoted: string; signature: string },
  dateLine: string,
): Record<string, string> {
  const zone = /([+-]\d{4}|\bUTC|\bGMT)\s*(?:\(.*\))?$/.exec(dateLine)?.[1] ?? '';
  const froms = email.headers.filter(({ key }) => key === 'from').length;
  const all: Record<string, string> = {
    quoted: parts.quoted,
    signature: parts.signature,
    zone,
    'reply to': people(email.replyTo)
      .map(({ handle }) => handle)
      .join(' '),
    list: ids(headerOf(email, 'list-id'))[0] ?? headerOf(email, 'list-id'),
    references: ids(email.references).join(' '),
    'attachment names': email.attachments.map(({ filename }) => filename ?? 'without a name').join(', '),
    note: froms > 1 ? `The email has ${froms} From lines; the first is its author.` : '',
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== ''));
}

function toBytes(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}
