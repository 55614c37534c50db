import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { isDiskFull } from './diskFull';
import { receive, TooLarge } from './receive';

describe('receive', () => {
  let folder = '';
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'pebble-receive-'))));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const parts = (...texts: string[]): Readable => Readable.from(texts.map((text) => Buffer.from(text)));

  it('writes what is sent', async () => {
    await receive(parts('ab', 'cd'), join(folder, 'x'), 4);
    expect(readFileSync(join(folder, 'x'), 'utf8')).toBe('abcd');
  });

  it('keeps nothing of what is too large, and reads the rest so that the sender hears why', async () => {
    const sent = parts('ab', 'cd', 'ef', 'gh');
    await expect(receive(sent, join(folder, 'x'), 3)).rejects.toThrow(TooLarge);
    await new Promise((done) => sent.on('close', done));
    expect(existsSync(join(folder, 'x'))).toBe(false);
    expect(existsSync(join(folder, 'x.part'))).toBe(false);
  });

  it('keeps nothing of what broke off', async () => {
    const sent = new Readable({ read: () => undefined });
    sent.push('ab');
    setTimeout(() => sent.destroy(new Error('The sender went away.')), 300);
    await expect(receive(sent, join(folder, 'x'), 100)).rejects.toThrow('went away');
    expect(existsSync(join(folder, 'x.part'))).toBe(false);
  });

  (existsSync('/dev/full') ? it : it.skip)('knows a full disk', async () => {
    const { open } = await import('node:fs/promises');
    const full = await open('/dev/full', 'w');
    const error: unknown = await full.writeFile('x').catch((problem: unknown) => problem);
    await full.close();
    expect(isDiskFull(error)).toBe(true);
    expect(isDiskFull(new Error('other'))).toBe(false);
  });
});
