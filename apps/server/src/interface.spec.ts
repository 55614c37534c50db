import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { startedApplication } from './testing/application';

describe('the built interface', () => {
  const webFolder = mkdtempSync(join(tmpdir(), 'pebble-web-'));
  const program = `console.log(${JSON.stringify('thread '.repeat(400))});`;
  writeFileSync(join(webFolder, 'index.html'), '<p>Pebble Thread</p>');
  writeFileSync(join(webFolder, 'main-ABCDEFGH.js'), program);
  writeFileSync(join(webFolder, 'main-ABCDEFGH.js.br'), brotliCompressSync(program));
  writeFileSync(join(webFolder, 'pebbles.svg'), '<svg/>');
  const app = startedApplication({ webFolder });
  afterAll(() => rmSync(webFolder, { recursive: true }));
  const ask = (path: string, encodings: string) => app.api.get(path).set('accept-encoding', encodings);

  it('is sent as it was packed to who can unpack it, and never again where its name tells it', async () => {
    const packed = await ask('/main-ABCDEFGH.js', 'gzip, br').expect(200);
    expect(packed.headers).toMatchObject({
      'content-encoding': 'br',
      'content-type': expect.stringContaining('javascript') as string,
      'cache-control': 'public, max-age=31536000, immutable',
      vary: expect.stringContaining('Accept-Encoding') as string,
    });
    const plain = await ask('/main-ABCDEFGH.js', 'identity').expect(200);
    expect(plain.headers['content-encoding']).toBeUndefined();
    expect(plain.headers['cache-control']).toContain('immutable');
    const picture = await ask('/pebbles.svg', 'br').expect(200);
    expect(picture.headers['cache-control']).toBe('no-cache');
  });

  it('answers every stop with its page, and a script that is missing with none', async () => {
    const { text } = await ask('/studies/a/weave', 'br').expect(200);
    expect(text).toContain('Pebble Thread');
    await ask('/main-OLDERONE.js', 'br').expect(404);
  });

  it.each(['/..%2f..%2f..%2fpackage.json', '/%2e%2e/%2e%2e/package.json', '/main-ABCDEFGH.js%00.br'])(
    'lets nobody out of its folder by %s',
    async (path) => {
      const { status, text } = await ask(path, 'br');
      expect([400, 403, 404]).toContain(status);
      expect(text).not.toContain('workspaces');
    },
  );
});
