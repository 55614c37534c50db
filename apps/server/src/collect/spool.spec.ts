import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Collected } from './connector';
import { Spool } from './spool';

const record = (id: string): Collected => ({
  id,
  what: 'messages',
  object: { id, content: `text of ${id}` },
});

describe('Spool', () => {
  let folder: string;
  let path: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'pebble-spool-'));
    path = join(folder, 'run.jsonl');
  });
  afterEach(() => {
    jest.restoreAllMocks();
    rmSync(folder, { recursive: true, force: true });
  });

  it('writes on where only a part was written, as it may happen on a disk that is nearly full', async () => {
    const spool = await Spool.at(path, 0);
    const handle = await prototypeOf(path);

    const write = handle.write as unknown as (
      buffer: Uint8Array,
      at: number,
      length: number,
    ) => Promise<unknown>;
    jest.spyOn(handle, 'write').mockImplementation(function (
      this: FileHandle,
      data: unknown,
      at = 0,
      length?: number,
    ) {
      const bytes = typeof data === 'string' ? Buffer.from(data) : (data as Uint8Array);
      return write.call(this, bytes, at, Math.min(7, length ?? bytes.length - at));
    } as never);
    await spool.add([record('a'), record('b')]);
    expect(
      readFileSync(path, 'utf8')
        .trim()
        .split('\n')
        .map((line) => (JSON.parse(line) as { id: string }).id),
    ).toEqual(['a', 'b']);
    expect(statSync(path).size).toBe(spool.bytes);
  });

  it('is cut back to what can be read where it was damaged', async () => {
    const spool = await Spool.at(path, 0);
    await spool.add([record('a'), record('é')]);
    const whole = spool.bytes;
    for (const damage of ['{"id":"c"', '[]x\n{"id":"d"}\n', '\n', '12\n']) {
      appendFileSync(path, damage);
      const again = await Spool.at(path, whole + Buffer.byteLength(damage));
      expect([again.bytes, again.isNew('a'), again.isNew('é'), again.isNew('d')]).toEqual([
        whole,
        false,
        false,
        true,
      ]);
      expect(statSync(path).size).toBe(whole);
    }
  });

  it('is cut back when the disk is full, and takes the same again', async () => {
    const spool = await Spool.at(path, 0);
    await spool.add([record('a')]);
    const before = readFileSync(path, 'utf8');
    const handle = await prototypeOf(path);
    const full = Object.assign(new Error('no space'), { code: 'ENOSPC' });
    jest.spyOn(handle, 'appendFile').mockImplementation(() => {
      appendFileSync(path, '{"id":"b","con');
      return Promise.reject(full);
    });
    await expect(spool.add([record('b')])).rejects.toBe(full);
    expect(readFileSync(path, 'utf8')).toBe(before);
    jest.restoreAllMocks();
    expect(await spool.add([record('b')])).toHaveLength(1);
    expect((await Spool.at(path, spool.bytes)).isNew('b')).toBe(false);
  });
});

/** The object from which file handles have their methods. */
async function prototypeOf(path: string): Promise<FileHandle> {
  const handle = await open(path, 'a');
  await handle.close();
  return Object.getPrototypeOf(handle) as FileHandle;
}
