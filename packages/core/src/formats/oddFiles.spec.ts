import { CsvReader } from './csv';
import { JsonDocumentReader, JsonLinesReader } from './jsonLines';
import { LineCutter } from './lines';
import { readDot } from './networks/dot';
import { BrokenNetwork } from './networks/foundNetwork';
import { readNetworkText } from './networks/readNetwork';
import { previewFile } from './preview/preview';
import { guessFormat } from './sniff';
import { UnreadableFile } from './unreadable';
import type { RecordReader, RecordSink } from './record';

/** What a reader gives: the values of its records, and what it left out with the line. */
function read(make: (sink: RecordSink) => RecordReader, ...pieces: string[]) {
  const rows: Record<string, string>[] = [];
  const skipped: [number, string][] = [];
  const reader = make({
    onRecord: ({ values, extra }) =>
      void rows.push(extra ?? Object.fromEntries(values.map((v, i) => [String(i), v]))),
    onSkip: (row, _, reason) => void skipped.push([row, reason]),
  });
  for (const piece of pieces) reader.write(piece);
  reader.end();
  return { rows, skipped };
}
const lines = (sink: RecordSink) => new JsonLinesReader([], sink);
const document = (sink: RecordSink) => new JsonDocumentReader([], sink);
const csv = (sink: RecordSink) => new CsvReader(',', sink);

describe('one odd record does not stop a file', () => {
  it('a line that is nested 100,000 deep is left out with its line', () => {
    const deep = `{"a":${'['.repeat(100_000)}${']'.repeat(100_000)}}`;
    const { rows, skipped } = read(lines, `{"a":"1"}\n${deep}\n{"a":"2"}\n`);
    expect(rows.map(({ a }) => a)).toEqual(['1', '2']);
    expect(skipped).toEqual([[2, expect.stringContaining('nested more than 200 deep')]]);
  });

  it('keys named constructor and __proto__ are keys like others', () => {
    const { rows } = read(lines, '{"__proto__":"x","constructor":"y","a":"1"}\n');
    expect(Object.entries(rows[0])).toEqual([
      ['__proto__', 'x'],
      ['constructor', 'y'],
      ['a', '1'],
    ]);
  });

  it('lines that end with CR alone are lines, wherever the pieces are cut', () => {
    const text = 'id,name\r1,ada\r2,bo\r';
    for (let cut = 0; cut <= text.length; cut++) {
      const { rows, skipped } = read(csv, text.slice(0, cut), text.slice(cut));
      expect(rows).toEqual([
        { 0: '1', 1: 'ada' },
        { 0: '2', 1: 'bo' },
      ]);
      expect(skipped).toEqual([]);
    }
    const windows: string[] = [];
    const cutter = new LineCutter(({ text: line }) => void windows.push(line!));
    for (const piece of ['a\r', '\nb\r\n', 'c']) cutter.write(piece);
    cutter.end();
    expect(windows).toEqual(['a', 'b', 'c']);
  });

  it('a list that ends too soon keeps what came before', () => {
    const { rows, skipped } = read(document, '{"posts":[{"a":"1"},\n{"a":"2"},\n{"a":"3');
    expect(rows.map(({ a }) => a)).toEqual(['1', '2']);
    expect(skipped).toEqual([[3, 'The file ends in the middle of its list; what stands before is kept.']]);
  });

  it('a second document behind the first is told with its line', () => {
    const text = '{"posts":[{"a":"1"}]}\n{"posts":[{"a":"2"}]}';
    expect(guessFormat(text, 'x.json').format).toBe('json');
    const { rows, skipped } = read(document, text);
    expect(rows).toHaveLength(1);
    expect(skipped).toEqual([
      [2, 'Another JSON document begins here; only the first one of a file is read.'],
    ]);
  });

  it('a name of 20 MB in DOT is a name', () => {
    const name = 'n'.repeat(20_000_000);
    expect(readDot(`digraph { a -> b; "${name}" -> b }`).nodeCount).toBe(3);
    expect(readDot('digraph { "a \\"b\\"" -> c }').nodes['handle']).toEqual(['a "b"', 'c']);
  });
});

describe('what would cost much', () => {
  const refused = (name: string, text: string): Promise<unknown> => {
    const head = new TextEncoder().encode(text);
    return previewFile({ name, head, size: head.length, whole: () => head }).then(
      () => null,
      (error: unknown) => error,
    );
  };

  it.each([
    ['commas.csv', ','.repeat(100_000), 'The table has 100,001 columns; at most 20,000 are read.'],
    [
      'wide.csv',
      `id,author,text${',more'.repeat(2000)}\n1,ann,a\n`,
      'The table has 2,003 columns; at most 2,000 are read.',
    ],
    [
      'deep.gv',
      `graph { ${'{'.repeat(50_000)} ${'}'.repeat(50_000)} }`,
      'Subgraphs are nested more than 100 deep.',
    ],
  ])('%s is refused with the bound', async (name, text, reason) => {
    const error = await refused(name, text);
    expect(error).toBeInstanceOf(UnreadableFile);
    expect((error as Error).message).toContain(reason);
  });

  it('a list of names is no network, which is said', () => {
    expect(() => readNetworkText('ann\nbob', { format: 'list', delimiter: '' })).toThrow(BrokenNetwork);
  });

  it('lines of JSON that end with CR alone are lines', () => {
    const guess = guessFormat('{"id":1,"text":"a"}\r{"id":2,"text":"b"}\r', 'a.jsonl');
    expect(guess.format).toBe('jsonl');
  });
});
