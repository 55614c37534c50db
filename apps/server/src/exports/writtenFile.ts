import { randomUUID } from 'node:crypto';
import { closeSync, mkdirSync, openSync, writeFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** A file that was written to be sent, and then taken away. */
export interface ExportedFile {
  readonly path: string;
  readonly name: string;
  readonly type: string;
}

/** Texts are written out when so much of them has come together. */
const TOGETHER = 1 << 20;

/** Writes a file to be sent. Returns where it is. */
export function writeBytes(folder: string, bytes: Uint8Array): string {
  const path = writeParts(folder, []);
  writeFileSync(path, bytes);
  return path;
}

/** Writes a file to be sent part by part, so that a large one takes no more memory than a small one. Returns where it is. */
export function writeParts(folder: string, parts: Iterable<string>): string {
  const exports = join(folder, 'exports');
  mkdirSync(exports, { recursive: true });
  const path = join(exports, randomUUID());
  const file = openSync(path, 'wx');
  try {
    let text = '';
    const flush = (): void => {
      let bytes = Buffer.from(text);
      while (bytes.length > 0) bytes = bytes.subarray(writeSync(file, bytes));
      text = '';
    };
    for (const part of parts) {
      text += part;
      if (text.length > TOGETHER) flush();
    }
    flush();
  } finally {
    closeSync(file);
  }
  return path;
}

/** A name as files can have it. */
export function fileName(name: string, otherwise: string): string {
  return (
    name
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim()
      .slice(0, 80) || otherwise
  );
}
