import type { IncomingMessage, SkippedRow } from '@pebble/contract';
import { takeJmapEmail } from './jmapEmail';

function read(value: unknown): { messages: IncomingMessage[]; skipped: SkippedRow[] } {
  const messages: IncomingMessage[] = [];
  const skipped: SkippedRow[] = [];
  const nothing = (): void => undefined;
  takeJmapEmail(value, 1, {
    message: (one) => void messages.push(one),
    skip: (one) => void skipped.push(one),
    item: nothing,
    follow: nothing,
    profile: nothing,
  });
  return { messages, skipped };
}

// The properties and their shapes follow RFC 8621, section 4.1 and its example in section 4.2.1; written down from memory.
const email = {
  id: 'f123u457',
  messageId: ['m2@quay.example'],
  inReplyTo: ['m1@quay.example'],
  references: ['m0@quay.example', 'm1@quay.example'],
  from: [{ name: 'Joe Bloggs', email: 'Joe@Quay.example' }],
  to: [{ name: null, email: 'ann@quay.example' }],
  cc: [{ name: 'Ben', email: 'ben@quay.example' }],
  subject: 'Dinner on Thursday?',
  sentAt: '2026-03-10T09:00:00+01:00',
  textBody: [{ partId: '1', type: 'text/plain' }],
  bodyValues: { 1: { value: 'Yes, gladly.\n\n> Are you coming?\n-- \nJoe\n' } },
  attachments: [{ name: 'menu.pdf', size: 1200 }],
  'header:List-Id:asText': 'Lamp talk <lamp-talk.lists.quay.example>',
};

describe('takeJmapEmail', () => {
  it('reads an Email object with its people, thread, list, and its text without history', () => {
    const [message] = read(email).messages;
    expect(message).toMatchObject({
      key: 'm2@quay.example',
      authorHandle: 'joe@quay.example',
      authorName: 'Joe Bloggs',
      subject: 'Dinner on Thursday?',
      text: 'Yes, gladly.',
      time: Date.UTC(2026, 2, 10, 8),
      kind: 'email',
      parentKey: 'm1@quay.example',
      numbers: { attachments: 1, 'attachment bytes': 1200 },
      attributes: { zone: '+01:00', list: 'lamp-talk.lists.quay.example', 'attachment names': 'menu.pdf' },
    });
    expect(message.addressed.map(({ handle, how }) => `${how} ${handle}`)).toEqual([
      'to ann@quay.example',
      'cc ben@quay.example',
    ]);
    expect(message.attributes['quoted']).toContain('Are you coming?');
  });

  it('reads text that came as HTML, and does without a date', () => {
    const [message] = read({
      ...email,
      sentAt: undefined,
      textBody: [{ partId: 'h', type: 'text/html' }],
      bodyValues: { h: { value: '<p>Hello <b>Ann</b></p>' } },
    }).messages;
    expect(message).toMatchObject({ text: 'Hello Ann', time: null });
  });

  it('says why an email cannot be taken', () => {
    expect(read({ ...email, from: [] }).skipped[0].reason).toBe('The email has no sender.');
    expect(read({ ...email, sentAt: 'soon' }).skipped[0].reason).toContain('The date cannot be read');
    expect(read('x').skipped[0].reason).toContain('no Email object');
  });
});
