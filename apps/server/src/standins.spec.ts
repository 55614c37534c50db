import { connect } from 'node:net';
import { request } from 'node:http';
import { startStandins, type RunningStandins } from './standins';

describe('the simulated services', () => {
  let running: RunningStandins;
  let port: number;
  beforeAll(async () => {
    running = await startStandins(0);
    port = Number(new URL(running.services[0].service.address).port);
  });
  afterAll(() => running.close());

  const status = (path: string, headers: Record<string, string> = {}): Promise<number> =>
    new Promise((resolve, reject) => {
      request({ host: '127.0.0.1', port, path, headers }, (response) => {
        response.resume();
        resolve(response.statusCode ?? 0);
      })
        .on('error', reject)
        .end();
    });
  /** What is written to the socket and then broken off. */
  const brokenOff = (text: string): Promise<void> =>
    new Promise((resolve) => {
      const socket = connect(port, '127.0.0.1', () => {
        socket.write(text, () => {
          socket.destroy();
          setTimeout(resolve, 100);
        });
      });
    });

  it.each(['//', 'http://[', '//elsewhere.example/'])(
    'answer an odd address with an error: %s',
    async (path) => {
      expect(await status(path)).toBe(400);
    },
  );

  it('go on after a request that was broken off', async () => {
    await brokenOff('POST /token HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 500\r\n\r\n0123456789');
    await brokenOff(
      `POST /token HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Length: 500\r\n\r\n0123456789`,
    );
    expect(await status('/nowhere')).toBeLessThan(500);
  });

  it('refuse a request under another host, as a foreign page would send it', async () => {
    expect(await status('/', { host: 'foreign.example' })).toBe(421);
  });
});
