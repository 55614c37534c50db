import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Row } from './measure';

/** Import and weaving, in a process of their own, so that its memory can be told. */
export function storeRows(posts: number): Promise<Row[]> {
  return new Promise((resolve, reject) => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-bench-'));
    const child = fork(join(import.meta.dirname, 'storeProcess.js'), [folder, String(posts)]);
    child.on('message', (rows) => resolve(rows as Row[]));
    child.on('error', reject);
    child.on('exit', (code) => {
      rmSync(folder, { recursive: true, force: true });
      if (code !== 0) reject(new Error(`The process of the store ended with ${code}.`));
    });
  });
}
