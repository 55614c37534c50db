import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FolderInUse, holdFolder } from './holder';

describe('holdFolder', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'pebble-held-'))));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('lets one application have a folder, and says who has it', () => {
    const held = holdFolder(folder, new Date('2026-03-01T10:00:00Z'));
    const second = (): unknown => holdFolder(folder);
    expect(second).toThrow(FolderInUse);
    expect(second).toThrow(`(process ${process.pid}, since 2026-03-01 10:00 UTC)`);
    held.release();
    holdFolder(folder).release();
  });

  it('is free again when the process that had it was killed', async () => {
    const library = require.resolve('better-sqlite3');
    const other = spawn(process.execPath, [
      '-e',
      `const file = new (require(${JSON.stringify(library)}))(${JSON.stringify(join(folder, 'in-use.sqlite'))});
       file.exec('CREATE TABLE holder (process INTEGER, since TEXT)');
       file.exec('BEGIN IMMEDIATE');
       console.log('held');
       setInterval(() => undefined, 1000);`,
    ]);
    await new Promise((held) => other.stdout.once('data', held));
    expect(() => holdFolder(folder)).toThrow(FolderInUse);
    other.kill('SIGKILL');
    await new Promise((ended) => other.once('exit', ended));
    holdFolder(folder).release();
  });
});
