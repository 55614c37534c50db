import { connect } from 'node:net';
import { startedApplication } from './testing/application';

describe('who is answered', () => {
  const app = startedApplication();
  let port: string;
  beforeAll(async () => {
    ({ port } = new URL(app.address));
  }, 60_000);

  /** The first line of the answer to a request as it is written here. */
  const raw = (text: string): Promise<string> =>
    new Promise((resolve, reject) => {
      let answer = '';
      const socket = connect(Number(port), '127.0.0.1', () => socket.write(text));
      socket.on('data', (part) => (answer += String(part)));
      socket.on('close', () => resolve(answer));
      socket.on('error', reject);
    });
  const asked = async (headers: Record<string, string>, method: 'get' | 'post' = 'get'): Promise<number> =>
    (
      await app.api[method]('/api/v1/studies')
        .set(headers)
        .send(method === 'post' ? { name: 'New' } : undefined)
    ).status;

  it.each([
    [{}, 200],
    [{ host: 'localhost:PORT' }, 200],
    [{ host: '127.0.0.1:PORT', origin: 'http://127.0.0.1:PORT', 'sec-fetch-site': 'same-origin' }, 200],
    [{ 'sec-fetch-site': 'none' }, 200],
    [{ host: '127.0.0.1:1' }, 403],
    [{ host: '127.0.0.1' }, 403],
    [{ host: 'foreign.example:PORT' }, 403],
    [{ origin: 'http://localhost:3000' }, 403],
    [{ origin: 'https://127.0.0.1:PORT' }, 403],
    [{ origin: 'null' }, 403],
    [{ origin: 'nonsense' }, 403],
    [{ origin: 'http://foreign.example' }, 403],
    [{ 'sec-fetch-site': 'cross-site' }, 403],
    [{ 'sec-fetch-site': 'same-site' }, 403],
  ])('%j: %d', async (headers, status) => {
    const own = Object.fromEntries(
      Object.entries(headers).map(([name, value]) => [name, value.replace('PORT', port)]),
    );
    expect(await asked(own)).toBe(status);
    expect(await asked(own, 'post')).toBe(status === 200 ? 201 : status);
  });

  it('is refused under two hosts, and the refusal has the headers of every answer', async () => {
    const own = `127.0.0.1:${port}`;
    const answer = await raw(
      `GET /api/v1/studies HTTP/1.1\r\nHost: ${own}\r\nHost: foreign.example\r\nConnection: close\r\n\r\n`,
    );
    expect(answer).toMatch(/^HTTP\/1.1 40[03]/);
    const refused = await app.api.get('/api/v1/studies').set('host', 'foreign.example');
    expect(refused.headers['content-security-policy']).toContain("default-src 'self'");
    expect(refused.headers['x-content-type-options']).toBe('nosniff');
  });

  it('keeps no data of people in a cache', async () => {
    const { headers } = await app.api.get(`/api/v1/studies/${app.study}/messages`).expect(200);
    expect(headers['cache-control']).toBe('no-store');
  });
});
