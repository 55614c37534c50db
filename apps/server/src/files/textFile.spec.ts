import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TextEncoding } from '@pebble/contract';
import { readHead, readPieces, readTextFile } from './textFile';

describe('reading a text file', () => {
  let folder: string;
  const write = (bytes: Uint8Array): string => {
    const path = join(folder, 'file');
    writeFileSync(path, bytes);
    return path;
  };
  const read = (bytes: Uint8Array, encoding: TextEncoding): string => {
    let text = '';
    readTextFile(write(bytes), encoding, (piece) => (text += piece));
    return text;
  };

  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'pebble-'))));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it.each([
    ['utf-8', Buffer.from('é 🦋\nzwei\r\ndrei')],
    ['utf-8', Buffer.from('\ufeffé 🦋\nzwei\r\ndrei')],
    ['utf-16le', Buffer.from('é 🦋\nzwei\r\ndrei', 'utf16le')],
    ['utf-16be', Buffer.from('é 🦋\nzwei\r\ndrei', 'utf16le').swap16()],
  ] as const)('in %s gives its text, without a byte order mark', (encoding, bytes) => {
    expect(read(bytes, encoding)).toBe('é 🦋\nzwei\r\ndrei');
  });

  it('in Windows-1252 knows its own marks', () => {
    expect(read(Uint8Array.of(0x63, 0x61, 0x66, 0xe9, 0x20, 0x80, 0x93), 'windows-1252')).toBe('café €“');
  });

  it('cuts no character in two, wherever the pieces of the file end', () => {
    const text = `${'🦋é'.repeat(60_000)}\n${'x'.repeat(300_000)}\nend`;
    expect(read(Buffer.from(text), 'utf-8')).toBe(text);
  });

  it('shows bytes that are no characters as such, and goes on', () => {
    expect(read(Uint8Array.of(0x61, 0xff, 0x62, 0x0a, 0x63), 'utf-8')).toBe('a\ufffdb\nc');
    expect(read(Uint8Array.of(0x61, 0xc3), 'utf-8')).toBe('a\ufffd');
  });

  it('keeps a byte order mark that stands further inside', () => {
    expect(read(Buffer.from('a\n\ufeffb'), 'utf-8')).toBe('a\n\ufeffb');
  });

  it('says how much was read', () => {
    const shares = [...readPieces(write(Buffer.alloc(600_000)))].map(({ share }) => share);
    expect(shares.length).toBeGreaterThan(2);
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('gives the first bytes and the size for a look', () => {
    expect(readHead(write(Buffer.from('abcdef')), 3)).toEqual({
      head: Uint8Array.from(Buffer.from('abc')),
      size: 6,
    });
  });

  it('reads an empty file as nothing', () => {
    expect(read(new Uint8Array(0), 'utf-8')).toBe('');
    expect([...readPieces(write(new Uint8Array(0)))]).toEqual([]);
  });
});
