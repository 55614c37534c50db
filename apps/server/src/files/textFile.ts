import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import { StringDecoder } from 'node:string_decoder';
import type { TextEncoding } from '@pebble/contract';

const PIECE = 256 * 1024;
const LINE_FEED = 10;

/** The first bytes of a file and its whole size. */
export function readHead(path: string, bytes = PIECE): { head: Uint8Array; size: number } {
  const file = openSync(path, 'r');
  try {
    const buffer = new Uint8Array(bytes);
    const length = readSync(file, buffer, 0, bytes, 0);
    return { head: buffer.subarray(0, length), size: fstatSync(file).size };
  } finally {
    closeSync(file);
  }
}

/** The bytes of a file, piece by piece, each with the share of the file that was read with it. A piece is only good until the next. */
export function* readPieces(path: string): Generator<{ bytes: Buffer; share: number }> {
  const file = openSync(path, 'r');
  try {
    const { size } = fstatSync(file);
    const buffer = Buffer.alloc(PIECE);
    let done = 0;
    for (;;) {
      const length = readSync(file, buffer, 0, PIECE, null);
      if (length === 0) return;
      done += length;
      yield { bytes: buffer.subarray(0, length), share: done / size };
    }
  } finally {
    closeSync(file);
  }
}

/** Reads a text file piece by piece, so that memory does not grow with it. `onPiece` also gets the share that was read. */
export function readTextFile(
  path: string,
  encoding: TextEncoding,
  onPiece: (text: string, share: number) => void,
): void {
  const decode = decoder(encoding);
  for (const { bytes, share } of readPieces(path)) for (const part of decode(bytes)) onPiece(part, share);
  for (const part of decode(null)) onPiece(part, 1);
}

/**
 * Decodes bytes that come in pieces; null ends them. UTF-8 is decoded line by line: a text without a character beyond Latin-1 takes
 * half the memory and is searched quicker, and one pictograph in a piece would spoil that for the whole piece.
 */
function decoder(encoding: TextEncoding): (bytes: Buffer | null) => Iterable<string> {
  if (encoding !== 'utf-8') {
    const other = new TextDecoder(encoding);
    return (bytes) => [bytes ? other.decode(bytes, { stream: true }) : other.decode()];
  }
  const utf8 = new StringDecoder('utf8');
  let isFirst = true;
  const clean = (text: string): string => {
    if (!isFirst || text === '') return text;
    isFirst = false;
    return text.replace(/^\ufeff/, '');
  };
  return function* (bytes) {
    if (bytes === null) {
      yield clean(utf8.end());
      return;
    }
    for (let from = 0; from < bytes.length;) {
      const at = bytes.indexOf(LINE_FEED, from);
      const end = at < 0 ? bytes.length : at + 1;
      yield clean(utf8.write(bytes.subarray(from, end)));
      from = end;
    }
  };
}
