import writeWorkbook from 'write-excel-file/node';
import { UnreadableFile } from './unreadable';
import { readWorkbook } from './workbook';

type Cells = NonNullable<Parameters<typeof writeWorkbook>[0][number]>['data'];

/** A workbook written by another library than the one that reads it. */
async function written(...sheets: { sheet: string; data: Cells }[]): Promise<Uint8Array> {
  return new Uint8Array(await writeWorkbook(sheets).toBuffer());
}
const text = (value: string) => ({ value, type: String });

describe('readWorkbook', () => {
  it('gives the sheets by name, with texts, numbers, yes and no, and dates in UTC', async () => {
    const bytes = await written(
      { sheet: 'Notes', data: [[text('About')]] },
      {
        sheet: 'Posts',
        data: [
          [text('author'), text('likes'), text('seen'), text('date')],
          [
            text('ann & "ben" <c>'),
            { value: 12.5, type: Number },
            { value: true, type: Boolean },
            { value: new Date(Date.UTC(2026, 2, 31, 14, 5)), type: Date, format: 'yyyy-mm-dd hh:mm' },
          ],
          [null, { value: 3, type: Number }, null, null],
        ],
      },
    );
    const [notes, posts] = readWorkbook(bytes);
    expect(notes).toEqual({ name: 'Notes', rows: [['About']], isWhole: true });
    expect(posts.rows[1]).toEqual(['ann & "ben" <c>', '12.5', 'true', '2026-03-31T14:05:00.000Z']);
    expect(posts.rows[2].slice(0, 2)).toEqual(['', '3']);
  });

  it('reads a large sheet to its end', async () => {
    const rows = 30_000;
    const data = Array.from({ length: rows }, (_, i) => [
      text(`account_${i % 900}`),
      text(`message ${i} with words enough to be a post`),
      { value: i, type: Number },
    ]);
    const bytes = await written({ sheet: 'Posts', data });
    const [beginning] = readWorkbook(bytes, 200);
    expect(beginning.rows).toHaveLength(200);
    expect(beginning.isWhole).toBe(false);
    const [sheet] = readWorkbook(bytes);
    expect(sheet.rows).toHaveLength(rows);
    expect(sheet.rows[rows - 1][2]).toBe(String(rows - 1));
  }, 30_000);

  it('says that it cannot be opened when it is damaged', async () => {
    const bytes = await written({ sheet: 'Posts', data: [[text('a')]] });
    expect(() => readWorkbook(bytes.subarray(0, bytes.length / 2))).toThrow(UnreadableFile);
  });
});
