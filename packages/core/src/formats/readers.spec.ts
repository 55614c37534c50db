import type { ImportMapping } from '@pebble/contract';
import type { FileRecord } from './record';
import { JsonLinesReader } from './jsonLines';
import { LineCutter } from './lines';
import { dateReader, guessDateForm } from './dates';
import { guessEncoding } from './encoding';
import { guessColumns, missingRoles } from './columns';
import { previewFile } from './preview/preview';
import { UnreadableFile } from './unreadable';
import { takePost } from './posts';
import { readEdgeList } from './edgeList';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const preview = (text: string, name = 'posts.csv') =>
  previewFile({ name, head: bytes(text), size: bytes(text).length, whole: () => bytes(text) });

describe('JsonLinesReader', () => {
  function read(text: string, columns: string[]): { records: FileRecord[]; skipped: [number, string][] } {
    const out = { records: [] as FileRecord[], skipped: [] as [number, string][] };
    const reader = new JsonLinesReader(columns, {
      onRecord: (r) => void out.records.push(r),
      onSkip: (row, _f, reason) => void out.skipped.push([row, reason]),
    });
    reader.write(text);
    reader.end();
    return out;
  }

  it('gives dotted names to values inside objects and keeps what has no column', () => {
    const { records } = read('{"id":1,"user":{"handle":"a"},"tags":["x","y"],"new":true}\n', [
      'id',
      'user.handle',
      'tags',
    ]);
    expect(records[0]).toEqual({ row: 1, values: ['1', 'a', 'x y'], extra: { new: 'true' } });
  });

  it('keeps an id beyond 2^53 as it is written', () => {
    expect(read('{"id":12345678901234567890}\n', ['id']).records[0].values).toEqual(['12345678901234567890']);
  });

  it('skips a line that is not JSON or no object, with its number', () => {
    const { records, skipped } = read('{"id":1}\n{"id":\n\n[1]\n{"id":2}', ['id']);
    expect(records.map((r) => r.row)).toEqual([1, 5]);
    expect(skipped.map(([row]) => row)).toEqual([2, 4]);
    expect(skipped[0][1]).toContain('Not valid JSON');
  });
});

describe('LineCutter', () => {
  it('cuts at LF and CRLF over the borders of pieces', () => {
    const lines: (string | null)[] = [];
    const cutter = new LineCutter(({ text }) => void lines.push(text));
    for (const piece of ['a\r', '\nb\n\nc', 'd']) cutter.write(piece);
    cutter.end();
    expect(lines).toEqual(['a', 'b', '', 'cd']);
  });

  it('holds no line that is too long, and goes on behind it', () => {
    const lines: (string | null)[] = [];
    const cutter = new LineCutter(({ text }) => void lines.push(text), 10);
    for (let i = 0; i < 1000; i++) cutter.write('xxxxx');
    cutter.write('\nok\n');
    expect(lines).toEqual([null, 'ok']);
  });
});

describe('dates', () => {
  const noon = Date.UTC(2026, 2, 31, 14, 5, 9);
  it.each([
    ['iso', '2026-03-31T14:05:09Z', noon],
    ['iso', '2026-03-31T16:05:09+02:00', noon],
    ['iso', '2026-03-31 14:05:09', noon],
    ['day-month-year', '31/03/2026 14:05:09', noon],
    ['day-month-year', '31.03.2026 2:05:09 PM', noon],
    ['month-day-year', '3/31/2026 2:05:09 pm', noon],
    ['words', '31 March 2026 14:05:09', noon],
    ['words', 'Mar 31, 2026, 2:05:09 PM', noon],
    ['words', 'Tue, 31 Mar 2026 14:05:09 +0000', noon],
    ['words', 'Tue Mar 31 14:05:09 +0000 2026', noon],
    ['unix-seconds', String(noon / 1000), noon],
    ['unix-milliseconds', String(noon), noon],
  ] as const)('reads %s: %s', (form, text, expected) => {
    expect(dateReader(form, 0)(text)).toBe(expected);
    expect(guessDateForm([text])).not.toBeNull();
  });

  it.each(['2026-02-30T00:00:00Z', '2026-13-01', '31/04/2026', 'yesterday', '', '25:00'])(
    'refuses “%s”',
    (text) => {
      for (const form of ['iso', 'day-month-year', 'words', 'unix-seconds'] as const)
        expect(dateReader(form, 0)(text)).toBeNull();
    },
  );

  it('takes dates without a zone in the zone that is given', () => {
    expect(dateReader('iso', 120)('2026-03-31 16:05:09')).toBe(noon);
  });

  it('tells when day and month could be either', () => {
    expect(guessDateForm(['01/02/2026', '03/04/2026'])).toEqual({ form: 'day-month-year', ambiguous: true });
    expect(guessDateForm(['01/02/2026', '03/24/2026'])).toEqual({ form: 'month-day-year', ambiguous: false });
  });
});

describe('guessEncoding', () => {
  it('tells the encodings apart by their bytes', () => {
    expect(guessEncoding(bytes('\ufeffa'), true).encoding).toBe('utf-8');
    expect(guessEncoding(Uint8Array.of(0xff, 0xfe, 0x61, 0), true).encoding).toBe('utf-16le');
    expect(guessEncoding(Uint8Array.of(0xfe, 0xff, 0, 0x61), true).encoding).toBe('utf-16be');
    expect(guessEncoding(Uint8Array.of(0x63, 0x61, 0x66, 0xe9), true).encoding).toBe('windows-1252');
    expect(guessEncoding(Uint8Array.of(0x63, 0x61, 0x66, 0xc3), false).encoding).toBe('utf-8');
  });
});

describe('guessColumns', () => {
  it('knows common names in any order and manner of writing', () => {
    const columns = guessColumns(
      ['Likes', 'Full text', 'Created at', 'user.handle', 'Post ID', 'In reply to'],
      [['5', 'hello there', '2026-03-01', 'a', '1', '']],
    );
    expect(columns.map(({ role }) => role)).toEqual(['number', 'text', 'time', 'author', 'id', 'parent']);
  });

  it('names the roles that are missing', () => {
    expect(missingRoles(guessColumns(['x', 'y'], [['1', '2']]))).toEqual(['author', 'text']);
  });
});

describe('previewFile', () => {
  it('detects delimiter, dates and columns', async () => {
    const { reading, missing } = await preview(
      'author;text;time\na;hello;31/03/2026 14:05\nb;"x; y";01/04/2026 09:00\n',
    );
    expect(reading).toMatchObject({
      format: 'csv',
      delimiter: ';',
      encoding: 'utf-8',
      dateForm: 'day-month-year',
    });
    expect(missing).toEqual([]);
  });

  it.each([
    ['', 'empty'],
    ['   \n \n', 'blank'],
    ['PK\u0003\u0004xx', 'zip archive'],
    ['%PDF-1.7', 'PDF'],
    ['[1, 2]', 'not an object'],
    ['{"a": 1,\n"b": 2}', 'no list of objects'],
    ['<html></html>', 'XML or HTML'],
    ['just one line of words', 'No columns'],
    ['{"a":\n{"b"', 'no list of objects'],
  ])('refuses “%s” and says why', async (text, why) => {
    await expect(preview(text)).rejects.toThrow(UnreadableFile);
    await expect(preview(text)).rejects.toThrow(why);
  });

  it('reads a file by its content whatever its ending', async () => {
    expect((await preview('{"author":"a","text":"b"}\n', 'posts.csv')).reading.format).toBe('jsonl');
  });

  it('shows the problems of the first rows', async () => {
    const { problems } = await preview(
      'author,text,time\na,hello,2026-03-01\nb,there,never\n,x,2026-03-01\nc,y,2026-03-02\n',
    );
    expect(problems).toEqual([
      { row: 3, field: 'time', reason: 'The date cannot be read: “never”.' },
      { row: 4, field: 'author', reason: 'The row has no author.' },
    ]);
  });
});

describe('takePost', () => {
  let reading: ImportMapping;
  const take = (values: string[]) => takePost(reading)({ row: 2, values, extra: null });

  beforeAll(async () => {
    ({ reading } = await preview(
      'id,author,text,time,kind,in_reply_to,likes,mood\n1,@Ann,hi,2026-03-01,,,5,good\n',
    ));
  });

  it('reads a post', () => {
    expect(take(['7', '@Ann', 'hi', '2026-03-01', '', '', '5', 'good'])).toMatchObject({
      key: '7',
      authorHandle: 'Ann',
      kind: 'post',
      numbers: { likes: 5 },
      attributes: { mood: 'good' },
      time: Date.UTC(2026, 2, 1),
    });
  });

  it('takes a message with a parent for a reply, and a marked one for a repost', () => {
    expect(take(['7', 'a', 'hi', '', '', '3', '', ''])).toMatchObject({
      kind: 'reply',
      parentKey: '3',
      time: null,
    });
    expect(take(['7', 'a', 'RT @bob: hi', '', '', '', '', ''])).toMatchObject({
      kind: 'repost',
      parentHandle: 'bob',
    });
    expect(take(['7', 'a', '', '', 'share', '3', '', ''])).toMatchObject({ kind: 'repost' });
  });

  it('keeps numbers that a number cannot hold as text', () => {
    expect(take(['7', 'a', 'x', '', '', '', '240000000000000000001', ''])).toMatchObject({
      numbers: { likes: '240000000000000000001' },
    });
    expect(take(['7', 'a', 'x', '', '', '', '240000000000', ''])).toMatchObject({
      numbers: { likes: 240_000_000_000 },
    });
  });
});

describe('readEdgeList', () => {
  it('reads names, directions and weights', () => {
    const { graph, names } = readEdgeList('source,target,weight\na,b,2\nb,c,1\n');
    expect(names).toEqual(['a', 'b', 'c']);
    expect([...graph.weight]).toEqual([2, 1]);
  });

  it('names the row that is wrong', () => {
    expect(() => readEdgeList('source,target,weight\na,b,x\n')).toThrow('Row 2');
    expect(() => readEdgeList('from,to\na,b\n')).toThrow('“source” and “target”');
  });
});
