import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Problem, UploadAnswer } from '@pebble/contract';
import { startedApplication } from './testing/application';
import { workbook } from './testing/workbook';

const HEADER = '<row r="1"><c r="A1" t="inlineStr"><is><t>id</t></is></c></row>';
const mail = (html: string): string =>
  `From: ann@quay.example\r\nDate: Tue, 3 Mar 2026 10:00:00 +0000\r\nSubject: odd\r\nContent-Type: text/html\r\n\r\n${html}`;
const box = (line: string): string =>
  `From ann@quay.example Tue Mar  3 10:00:00 2026\nFrom: ann@quay.example\nDate: Tue, 3 Mar 2026 10:00:00 +0000\n\ntext\n\n${line}\nmore\n`;

/** Small files that would cost much if they were read without bounds, with what is said of those that are refused. */
const FILES: readonly [name: string, body: () => string | Uint8Array, refusal: RegExp | null][] = [
  ['comments.eml', () => mail('<!--'.repeat(50_000)), null],
  ['anchors.eml', () => mail('<a'.repeat(100_000)), null],
  ['scripts.eml', () => mail('<script>'.repeat(50_000)), null],
  ['from.mbox', () => box(`From x ${'11:11 '.repeat(170_000)}`), null],
  ['from-first.mbox', () => `From x${' 11:11'.repeat(170_000)}\n`, /./],
  ['blanks.mbox', () => box(`${' '.repeat(1_000_000)}x`), null],
  ['quotes.mbox', () => box('On Tuesday, somebody wrote:\n\n'.repeat(20_000)), null],
  [
    'keys.graphml',
    () =>
      `<graphml>${Array.from({ length: 4000 }, (_, i) => `<key id="k${i}" for="node" attr.name="k${i}"><default>1</default></key>`).join('')}<graph>${Array.from({ length: 4000 }, (_, i) => `<node id="${i}"/>`).join('')}<edge source="1" target="2"/></graph></graphml>`,
    null,
  ],
  [
    'far-down.xlsx',
    () => workbook({ S: `${HEADER}<row r="99999999"><c r="A99999999"><v>1</v></c></row>` }),
    /no sheet with a heading and rows|row 99,999,999/,
  ],
  [
    'far-out.xlsx',
    () =>
      workbook({
        S:
          HEADER +
          Array.from(
            { length: 20_000 },
            (_, i) => `<row r="${i + 2}"><c r="XFD${i + 2}"><v>1</v></c></row>`,
          ).join(''),
      }),
    /column 16,384 of row 2; at most 2,000 columns/,
  ],
  [
    'long-cell.xlsx',
    () => workbook({ S: [['id'], ['x'.repeat(1_200_000)]] }),
    /1,200,000 characters in a cell/,
  ],
  [
    'blanks.xlsx',
    () => workbook({ S: HEADER + ' '.repeat(70_000_000) }),
    /more than 64 MB when it is unpacked/,
  ],
];

describe('files that would cost much', () => {
  const app = startedApplication();

  it.each(FILES)(
    '%s is answered',
    async (name, body, refusal) => {
      const answer = await app.send(name, body());
      if (answer.status === 422) {
        expect((answer.body as Problem).file).toBe(name);
        expect((answer.body as Problem).detail).toMatch(refusal ?? /^$/);
      } else expect([answer.status, (answer.body as UploadAnswer).uploads.length]).toEqual([201, 1]);
    },
    20_000,
  );

  it('a search of very many words, or with a character that is no text, is refused with its place', async () => {
    for (const text of [Array.from({ length: 201 }, (_, i) => `w${i}`).join(' '), 'lamp\u0000s']) {
      const { body } = await app.api.get(`/api/v1/studies/${app.study}/messages`).query({ text }).expect(400);
      expect((body as Problem).detail).toMatch(/At most 200 words|no text/);
    }
  });
});

describe('a look at a file that does not get any further', () => {
  const app = startedApplication({ longestLook: 0 });

  it('is ended, said, and nothing of the file stays', async () => {
    // Small as it is sent, and long to read.
    const rows = Array.from({ length: 40_000 }, () => ['ann', 'bob', '1']);
    const { body } = await app.send('endless.xlsx', workbook({ S: [['a', 'b', 'c'], ...rows] })).expect(422);
    const problem = body as Problem;
    expect(problem.file).toBe('endless.xlsx');
    expect(problem.detail).toContain('without getting any further');
    expect(problem.detail).toContain('save it as CSV');
    expect(readdirSync(join(app.studyFolder, 'uploads'))).toEqual([]);
    // The threads go on: what comes next is answered.
    await app.get('messages');
  });
});
