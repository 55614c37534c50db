import type { IncomingMessage, SkippedRow } from '@pebble/contract';
import { takeEmail } from './email';
import { MboxCutter, type RawMail } from './mbox';

const lines = (...all: string[]): string => `${all.join('\r\n')}\r\n`;
const read = async (bytes: string): Promise<IncomingMessage> => {
  const result = await takeEmail({ row: 1, bytes });
  if ('reason' in result) throw new Error(result.reason);
  return result;
};
const refused = async (bytes: string): Promise<SkippedRow> =>
  (await takeEmail({ row: 1, bytes })) as SkippedRow;

// The sample messages of RFC 5322, appendix A, written down from memory.
describe('takeEmail on the samples of RFC 5322', () => {
  it('A.1.1: from one person to another', async () => {
    expect(
      await read(
        lines(
          'From: John Doe <jdoe@machine.example>',
          'To: Mary Smith <mary@example.net>',
          'Subject: Saying Hello',
          'Date: Fri, 21 Nov 1997 09:55:06 -0600',
          'Message-ID: <1234@local.machine.example>',
          '',
          'This is a message just to say hello.',
          'So, "Hello".',
        ),
      ),
    ).toMatchObject({
      key: '1234@local.machine.example',
      authorHandle: 'jdoe@machine.example',
      authorName: 'John Doe',
      subject: 'Saying Hello',
      text: 'This is a message just to say hello.\nSo, "Hello".',
      time: Date.UTC(1997, 10, 21, 15, 55, 6),
      addressed: [{ handle: 'mary@example.net', name: 'Mary Smith', how: 'to' }],
      attributes: { zone: '-0600' },
    });
  });

  it('A.1.2: different kinds of mailboxes', async () => {
    const { authorName, addressed } = await read(
      lines(
        'From: "Joe Q. Public" <john.q.public@example.com>',
        'To: Mary Smith <mary@x.test>, jdoe@example.org, Who? <one@y.test>',
        'Cc: <boss@nil.test>, "Giant; \\"Big\\" Box" <sysservices@example.net>',
        'Date: Tue, 1 Jul 2003 10:52:37 +0200',
        'Message-ID: <5678.21-Nov-1997@example.com>',
        '',
        'Hi everyone.',
      ),
    );
    expect(authorName).toBe('Joe Q. Public');
    expect(addressed.map(({ handle, how }) => `${how} ${handle}`)).toEqual([
      'to mary@x.test',
      'to jdoe@example.org',
      'to one@y.test',
      'cc boss@nil.test',
      'cc sysservices@example.net',
    ]);
    expect(addressed.at(-1)!.name).toBe('Giant; "Big" Box');
  });

  it('A.1.3: groups of addresses stand for their members', async () => {
    const { addressed } = await read(
      lines(
        'From: Pete <pete@silly.example>',
        'To: A Group:Ed Jones <c@a.test>,joe@where.test,John <jdoe@one.test>;',
        'Cc: Undisclosed recipients:;',
        'Date: Thu, 13 Feb 1969 23:32:54 -0330',
        'Message-ID: <testabcd.1234@silly.example>',
        '',
        'Testing.',
      ),
    );
    expect(addressed.map(({ handle }) => handle)).toEqual(['c@a.test', 'joe@where.test', 'jdoe@one.test']);
  });

  it('A.2: a reply knows what it answers', async () => {
    const { parentKey, attributes } = await read(
      lines(
        'From: Mary Smith <mary@example.net>',
        'To: John Doe <jdoe@machine.example>',
        'Reply-To: "Mary Smith: Personal Account" <smith@home.example>',
        'Subject: Re: Saying Hello',
        'Date: Fri, 21 Nov 1997 10:01:10 -0600',
        'Message-ID: <3456@example.net>',
        'In-Reply-To: <1234@local.machine.example>',
        'References: <1234@local.machine.example>',
        '',
        'This is a reply to your hello.',
      ),
    );
    expect(parentKey).toBe('1234@local.machine.example');
    expect(attributes['reply to']).toBe('smith@home.example');
  });

  it('A.5: white space and comments do no harm', async () => {
    const { authorHandle, text } = await read(
      lines(
        'From: Pete(A nice \\) chap) <pete(his account)@silly.test(his host)>',
        "To:A Group(Some people):Chris Jones <c@(Chris's host.)public.example>, joe@example.org;",
        'Date: Thu,',
        '      13',
        '        Feb',
        '          1969',
        '      23:32',
        '               -0330 (Newfoundland Time)',
        'Message-ID: <testabcd.1234@silly.test>',
        '',
        'Testing.',
      ),
    );
    expect(authorHandle).toBe('pete@silly.test');
    expect(text).toBe('Testing.');
  });
});

describe('takeEmail', () => {
  const head = (...more: string[]): string[] => [
    'From: Ann <Ann@Quay.example>',
    'To: lamps@council.example',
    'Date: Tue, 31 Mar 2026 14:05:09 +0100',
    'Message-ID: <1@quay.example>',
    ...more,
  ];

  // The table of RFC 2047, section 8: how encoded words are displayed.
  it.each([
    ['(=?ISO-8859-1?Q?a?=)', '(a)'],
    ['(=?ISO-8859-1?Q?a?= b)', '(a b)'],
    ['(=?ISO-8859-1?Q?a?= =?ISO-8859-1?Q?b?=)', '(ab)'],
    ['(=?ISO-8859-1?Q?a_b?=)', '(a b)'],
    ['(=?ISO-8859-1?Q?a?= =?ISO-8859-2?Q?_b?=)', '(a b)'],
  ])('decodes the subject %s', async (written, shown) => {
    expect((await read(lines(...head(`Subject: ${written}`), '', 'x'))).subject).toBe(shown);
  });

  it('reads charsets and transfer encodings', async () => {
    const quoted = lines(
      ...head(
        'MIME-Version: 1.0',
        'Content-Type: text/plain; charset=iso-8859-1',
        'Content-Transfer-Encoding: quoted-printable',
      ),
      '',
      'caf=E9 on the =',
      'quay',
    );
    expect((await read(quoted)).text).toBe('café on the quay');
    const eightBit = lines(
      ...head('MIME-Version: 1.0', 'Content-Type: text/plain; charset=utf-8'),
      '',
      'caf\u00c3\u00a9',
    );
    expect((await read(eightBit)).text).toBe('café');
  });

  it('joins flowed lines (RFC 3676)', async () => {
    const { text } = await read(
      lines(
        ...head('MIME-Version: 1.0', 'Content-Type: text/plain; format=flowed'),
        '',
        'The lamps are ',
        'dimmed.',
        'Good.',
      ),
    );
    expect(text).toBe('The lamps are dimmed.\nGood.');
  });

  it('keeps names and sizes of attachments, and the text of an email that has HTML only', async () => {
    const { text, numbers, attributes } = await read(
      lines(
        ...head('MIME-Version: 1.0', 'Content-Type: multipart/mixed; boundary=b'),
        '',
        '--b',
        'Content-Type: text/html',
        '',
        '<p>Dear <b>all</b>,</p><p>see the plan.</p>',
        '--b',
        'Content-Type: application/pdf; name="plan.pdf"',
        'Content-Disposition: attachment; filename="plan.pdf"',
        'Content-Transfer-Encoding: base64',
        '',
        'AAECAw==',
        '--b--',
      ),
    );
    expect(text).toContain('Dear all,');
    expect(numbers).toEqual({ attachments: 1, 'attachment bytes': 4 });
    expect(attributes['attachment names']).toBe('plan.pdf');
  });

  it('keeps an email without a date, and takes the first of three From lines', async () => {
    const undated = await read(lines('From: a@x.example', 'To: b@x.example', '', 'x'));
    expect(undated.time).toBeNull();
    const three = await read(
      lines(
        'From: a@x.example',
        'From: b@x.example',
        'From: c@x.example',
        'Subject: s',
        'Date: Tue, 31 Mar 2026 14:05:09 Z',
        '',
        'x',
      ),
    );
    expect(three.attributes['note']).toContain('3 From lines');
  });

  it('says why it leaves something out', async () => {
    expect((await refused('no header at all\r\n\r\njust text')).reason).toContain('no header lines');
    expect(await refused(lines('To: a@x.example', 'Subject: s', '', 'x'))).toMatchObject({ field: 'From' });
    expect(await refused(lines('From: a@x.example', 'Date: someday', '', 'x'))).toMatchObject({
      field: 'Date',
    });
  });

  it('parts what was written from what is repeated, and from the signature', async () => {
    const { text, attributes } = await read(
      lines(
        ...head('Subject: Re: lamps'),
        '',
        'I agree.',
        '',
        'On Mon, 30 Mar 2026 at 10:00, Ben <ben@quay.example> wrote:',
        '> Shall we dim them?',
        '> Yes or no?',
        '',
        'Yes.',
        '-- ',
        'Ann, Quay 4',
      ),
    );
    expect(text).toBe('I agree.\n\nYes.');
    expect(attributes['quoted']).toContain('Shall we dim them?');
    expect(attributes['signature']).toBe('Ann, Quay 4');
  });
});

describe('MboxCutter', () => {
  const cut = (text: string, size = text.length): RawMail[] => {
    const mails: RawMail[] = [];
    const cutter = new MboxCutter((mail) => mails.push(mail));
    for (let at = 0; at < text.length; at += size) cutter.write(text.slice(at, at + size));
    cutter.end();
    return mails;
  };
  // RFC 4155, appendix A: "From ", the sender, and a date of the C library.
  const box = [
    'From ann@quay.example Tue Mar 31 14:05:09 2026',
    'Subject: one',
    '',
    'From here on it is dark.',
    '>From the quay we saw it.',
    '>>From is quoted twice.',
    '',
    'From ben@quay.example Tue Mar 31 15:00:00 2026',
    'Subject: two',
    '',
    'x',
    '',
  ].join('\n');

  it('begins a message at a "From " line with a date, after a blank line (RFC 4155)', () => {
    const mails = cut(box);
    expect(mails.map(({ row }) => row)).toEqual([1, 8]);
    expect(mails[0].bytes).toBe(
      lines(
        'Subject: one',
        '',
        'From here on it is dark.',
        'From the quay we saw it.',
        '>From is quoted twice.',
      ),
    );
  });

  it('gives the same wherever the pieces are cut', () => {
    for (const size of [1, 7, 64]) expect(cut(box, size)).toEqual(cut(box));
  });

  it('leaves out a message that is larger than can be kept, and goes on', () => {
    const tooLarge = jest.fn();
    const mails: RawMail[] = [];
    const cutter = new MboxCutter((mail) => mails.push(mail), tooLarge);
    cutter.write('From a@x.example Tue Mar 31 14:05:09 2026\n\n');
    for (let i = 0; i < 70; i++) cutter.write(`${'x'.repeat(1024 * 1024)}\n`);
    cutter.write('\nFrom a@x.example Tue Mar 31 14:05:09 2026\nSubject: ok\n\nok\n');
    cutter.end();
    expect(tooLarge).toHaveBeenCalledWith(1);
    expect(mails).toHaveLength(1);
  });
});
