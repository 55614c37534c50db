import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { TextEncoding } from '@pebble/contract';

const PIECE = 256 * 1024;

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

/** Reads a text file piece by piece, so that memory does not grow with it. `onPiece` also gets the share that was read. */
export function readTextFile(
  path: string,
  encoding: TextEncoding,
  onPiece: (text: string, share: number) => void,
): void {
  const decoder = new TextDecoder(encoding);
  const file = openSync(path, 'r');
  try {
    const { size } = fstatSync(file);
    const buffer = new Uint8Array(PIECE);
    let done = 0;
    for (;;) {
      const length = readSync(file, buffer, 0, PIECE, null);
      if (length === 0) break;
      done += length;
      onPiece(decoder.decode(buffer.subarray(0, length), { stream: true }), done / size);
    }
    onPiece(decoder.decode(), 1);
  } finally {
    closeSync(file);
  }
}
