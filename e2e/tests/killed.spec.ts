import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { withKey } from '../key';
import { beginServer } from '../server';

const port = Number(process.env['E2E_PORT'] ?? 4655) + 10;
const api = `http://127.0.0.1:${port}/api/v1`;

test('an import that was killed leaves nothing, is shown as interrupted, and can be run again', async () => {
  const data = mkdtempSync(join(tmpdir(), 'pebble-killed-'));
  let server = await beginServer(port, data);
  const post = (path: string, body: unknown): Promise<Response> =>
    fetch(api + path, {
      method: 'POST',
      headers: { ...withKey(data), 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const get = async (path: string) => (await fetch(api + path, { headers: withKey(data) })).json();
  try {
    const { id: study } = (await (await post('/studies', { name: 'Killed' })).json()) as { id: string };
    const rows = Array.from(
      { length: 60_000 },
      (_, i) => `${i},ann${i % 900},"message ${i} @bob${i % 70} #tag${i % 40}"`,
    );
    const sent = await fetch(`${api}/studies/${study}/uploads`, {
      method: 'POST',
      headers: {
        ...withKey(data),
        'content-type': 'application/octet-stream',
        'x-file-name': 'large.csv',
      },
      body: `id,author,text\n${rows.join('\n')}\n`,
    });
    const {
      uploads: [{ id, preview }],
    } = (await sent.json()) as { uploads: [{ id: string; preview: { reading: unknown } }] };
    const request = {
      kind: 'import-source',
      parameters: { upload: id, file: 'large.csv', name: 'large.csv', reading: preview.reading },
    };
    const pending = post(`/studies/${study}/steps`, request).catch(() => null);
    const latest = async (): Promise<string> => (await get(`/studies/${study}/logbook`)).steps[0].state;
    await expect.poll(latest, { intervals: [10] }).toBe('running');
    server.kill('SIGKILL');
    await pending;

    server = await beginServer(port, data);
    expect(await latest()).toBe('interrupted');
    expect(await get(`/studies/${study}`)).toMatchObject({ messages: 0, accounts: 0 });
    const again = await post(`/studies/${study}/steps`, request);
    expect(await again.json()).toMatchObject({ state: 'done', result: { kept: 60_000 } });
  } finally {
    server.kill();
    rmSync(data, { recursive: true, force: true });
  }
});
