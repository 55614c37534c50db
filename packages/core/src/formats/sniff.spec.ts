import { previewFile } from './preview/preview';
import { guessFormat, isWorkbook, isZip, refuseForeign } from './sniff';
import { UnreadableFile } from './unreadable';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('guessFormat', () => {
  it.each([
    ['author,text\nann,hello', 'csv', 'messages'],
    ['author\ttext\nann\thello', 'tsv', 'messages'],
    ['{"author":"ann","text":"x"}\n{"author":"ben","text":"y"}', 'jsonl', 'messages'],
    ['{"author":"ann","text":"x"}', 'jsonl', 'messages'],
    ['[{"author":"ann"}]', 'json', 'messages'],
    ['{\n "posts": [\n  {"author":"ann"}]}', 'json', 'messages'],
    ['{"posts":[{"author":"ann"}]}', 'json', 'messages'],
    [
      '{"@context":"https://www.w3.org/ns/activitystreams","type":"Note","content":"x"}',
      'activities',
      'messages',
    ],
    [
      '{"@context":"https://www.w3.org/ns/activitystreams","type":"Collection","items":[{"type":"Note"}]}',
      'activities',
      'messages',
    ],
    ['From ann@quay.example Tue Mar 31 14:05:09 2026\nFrom: a', 'mbox', 'messages'],
    ['Return-Path: <a@x.example>\nFrom: a@x.example\nSubject: s\n\ntext', 'eml', 'messages'],
    ['<?xml version="1.0"?>\n<graphml xmlns="x"><graph/></graphml>', 'graphml', 'network'],
    ['# made by hand\ngraph [\n node [ id 1 ]\n]', 'gml', 'network'],
    ['Creator "x"\nVersion 1\ngraph [ ]', 'gml', 'network'],
    ['{"graph":{"nodes":{},"edges":[]}}', 'jgf', 'network'],
    ['strict digraph "a b" {\n a -> b }', 'dot', 'network'],
    ['// note\ngraph{a--b}', 'dot', 'network'],
    ['a b c\nb c\nd', 'adjacency', 'network'],
  ])('takes %j for %s', (text, format, material) => {
    expect(guessFormat(text, 'any.name')).toMatchObject({ format, material });
  });

  it('gives a reason for what it takes a file for', () => {
    expect(guessFormat('a;b\n1;2', 'x').reason).toBe('A table with semicolons between its columns.');
  });
});

describe('files that hold no text', () => {
  it.each([
    ['%PDF-1.7', 'PDF'],
    ['\u00ff\u00d8\u00ff\u00e0', 'picture'],
    ['\u001f\u008b\u0008', 'gzip'],
    ['\u00d0\u00cf\u0011\u00e0', 'old format'],
    ['PK\u0003\u0004', 'zip'],
    ['\u0001\u0002\u0003\u0004\u0005'.repeat(50), 'not text'],
  ])('are refused: %j', (text, why) => {
    const head = Uint8Array.from(text, (character) => character.charCodeAt(0));
    expect(() => refuseForeign(head)).toThrow(UnreadableFile);
    expect(() => refuseForeign(head)).toThrow(why);
  });

  it('tells a workbook from another archive', () => {
    const zip = (names: string): Uint8Array => bytes(`PK\u0003\u0004${names}`);
    expect(isZip(zip('a.csv'))).toBe(true);
    expect(isWorkbook(zip('a.csv'))).toBe(false);
    expect(isWorkbook(zip('[Content_Types].xml'))).toBe(true);
    expect(isWorkbook(bytes('xl/workbook'))).toBe(false);
  });
});

describe('the preview', () => {
  const preview = (text: string, chosen?: Parameters<typeof previewFile>[1]) =>
    previewFile({ name: 'f', head: bytes(text), size: bytes(text).length, whole: () => bytes(text) }, chosen);

  it('shows the messages of a format whose columns need no naming', async () => {
    const found = await preview(
      'From: Ann <a@x.example>\nTo: b@x.example\nSubject: s\nDate: Tue, 31 Mar 2026 14:05:09 Z\n\nhello',
    );
    expect(found).toMatchObject({ fixed: true, materials: ['messages'], missing: [] });
    expect(found.rows[0]).toEqual([
      'a@x.example',
      'b@x.example',
      '2026-03-31 14:05',
      's',
      'hello',
      'email',
      '',
    ]);
  });

  it('says what a network is made of, and shows its first ties by their labels', async () => {
    const found = await preview('digraph { a [label="Ann", age=30]; a -> b [weight=2, mood=calm] }');
    expect(found.network).toEqual({
      nodes: 2,
      edges: 1,
      directed: true,
      weighted: true,
      nodeColumns: ['age'],
      edgeColumns: ['mood'],
    });
    expect(found.rows).toEqual([['Ann', 'b', '2', 'calm']]);
  });

  it('takes a table with two ends and no text for ties, and for messages when it is told so', async () => {
    const text = 'from,to,text_length\na,b,3\n';
    expect((await preview(text)).reading.material).toBe('network');
    const told = await preview(text, { material: 'messages' });
    expect(told.reading.columns.map(({ role }) => role)).toEqual(['author', 'to', 'number']);
    expect(told.missing).toEqual(['text']);
  });

  it('takes a square matrix for a network, and says why', async () => {
    const found = await preview(',a,b\na,0,1\nb,1,0\n');
    expect(found.reading).toMatchObject({ format: 'matrix', material: 'network' });
    expect(found.reasons.join(' ')).toContain('the same names');
  });

  it('marks the rows of a list of ties that cannot be read', async () => {
    const { problems } = await preview('source,target,weight\na,b,1\n,,\nc,d,none\n');
    expect(problems).toEqual([
      { row: 3, field: 'source', reason: 'The row names no node.' },
      { row: 4, field: 'weight', reason: 'The weight “none” is no positive number.' },
    ]);
  });
});
