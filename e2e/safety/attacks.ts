import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { withKey } from '../key';
import { prepare } from './prepared';
import { keptIn } from './kept';
import { pause, Served } from './served';

/** What came of requests that nobody with good intentions sends. */
interface Attacked {
  readonly requests: number;
  readonly faults: readonly string[];
}

/** A part of a request, as the description of the API tells it. */
interface Described {
  readonly parameters?: readonly { readonly name: string; readonly schema: { readonly enum?: string[] } }[];
}

interface Operation extends Described {
  readonly path: string;
  readonly method: string;
}

/** What a path names, replaced by what it must not reach. */
const ODD_IDS = [
  '..%2F..%2F..%2Fetc%2Fpasswd',
  '%00',
  '%2e%2e',
  'x'.repeat(3000),
  '-1',
  '1e309',
  '%F0%9F%92%A1',
  '__proto__',
  "1'%20or%20'1'='1",
  '%E0%A4%A',
];

const ODD_BODIES: readonly [what: string, body: string, type: string][] = [
  ['nothing', '', 'application/json'],
  ['no JSON', '{"a":', 'application/json'],
  ['null', 'null', 'application/json'],
  ['a list', '[1,2]', 'application/json'],
  ['a number', '1e309', 'application/json'],
  ['a prototype', '{"__proto__":{"kind":"weave"},"constructor":{"prototype":1}}', 'application/json'],
  ['a deep one', `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`, 'application/json'],
  ['another type', '<a/>', 'application/xml'],
  ['a form', 'name=x&kind=weave', 'application/x-www-form-urlencoded'],
  ['no letters', '{"name":"\ud800\u0000"}', 'application/json'],
  [
    'every field wrong',
    '{"name":{"$gt":""},"kind":["weave"],"parameters":"x","network":{},"filter":[]}',
    'application/json',
  ],
  ['much', JSON.stringify({ name: 'x'.repeat(11_000_000) }), 'application/json'],
];

const ODD_QUERIES = [
  '?page=-1&limit=1e309&from=NaN&until=x',
  '?text=%00&search=%00',
  `?text=${'a%20'.repeat(1500)}`,
  '?text=%22&search=%25%25%25',
  '?text=a&text=b&search[]=a&search[x]=y&from[$gt]=1',
  "?by='%3Bdrop%20table%20message%3B--&order=x",
  '?__proto__[x]=1&constructor=1',
  '?width=1e9&height=-1&resolution=Infinity&lettering=0',
  '?node=-1&source=1e20&target=x&edge=9007199254740993',
];

/** Requests as they stand on the wire. */
const RAW: readonly string[] = [
  'GET // HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'GET http://foreign.example/ HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'GET / HTTP/1.1\r\nHost: HOST\r\nHost: foreign.example\r\n\r\n',
  'GET / HTTP/1.1\r\n\r\n',
  'GET / HTTP/0.9\r\n\r\n',
  'OPTIONS * HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'TRACE / HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'CONNECT foreign.example:443 HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'POST /api/v1/studies HTTP/1.1\r\nHost: HOST\r\nContent-Length: 10\r\n\r\n{"n',
  'POST /api/v1/studies HTTP/1.1\r\nHost: HOST\r\nTransfer-Encoding: chunked\r\nContent-Length: 4\r\n\r\nzz\r\n',
  'POST /api/v1/studies HTTP/1.1\r\nHost: HOST\r\nContent-Length: -1\r\n\r\n',
  'POST /api/v1/studies HTTP/1.1\r\nHost: HOST\r\nContent-Length: 99999999999999999999\r\n\r\nx',
  `GET /${'a'.repeat(100_000)} HTTP/1.1\r\nHost: HOST\r\n\r\n`,
  `GET / HTTP/1.1\r\nHost: HOST\r\nX-Long: ${'a'.repeat(100_000)}\r\n\r\n`,
  `GET / HTTP/1.1\r\nHost: HOST\r\n${'A: b\r\n'.repeat(5000)}\r\n`,
  'GET / HTTP/1.1\r\nHost: HOST\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n\r\n',
  'GET /\0 HTTP/1.1\r\nHost: HOST\r\n\r\n',
  '\x16\x03\x01\x02\x00\x01\x00\x01\xfc\x03\x03',
  '\r\n\r\n\r\n',
  'GET /..%2f..%2fetc%2fpasswd HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'GET /../../../etc/passwd HTTP/1.1\r\nHost: HOST\r\n\r\n',
  'GET /api/v1/studies?%=% HTTP/1.1\r\nHost: HOST\r\n\r\n',
];

const UNTOUCHED = [
  'message',
  'account',
  'address',
  'source',
  'network',
  'map',
  'tidy_decision',
  'saved_filter',
];

/** Sends them all, and looks whether anything was told, changed or ended by them. */
export async function attacks(port: number): Promise<Attacked> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-attacked-'));
  let app = await Served.start(folder, port);
  const faults: string[] = [];
  let requests = 0;
  try {
    const prepared = await prepare(app);
    await app.stop();
    const before = keptIn(folder);
    app = await Served.start(folder, port, { standins: true });
    const { paths } = await app.succeed<{ paths: Record<string, Record<string, Described>> }>(
      'GET',
      '/openapi.json',
    );
    const operations = Object.entries(paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, { parameters }]): Operation => ({
        path,
        method: method.toUpperCase(),
        parameters,
      })),
    );
    const filled = ({ path, parameters }: Operation): string =>
      path
        .replace('{study}', prepared.study)
        .replace('{network}', prepared.network)
        .replace(/\{(\w+)\}/g, (_, part: string) => {
          const described = parameters?.find(({ name }) => name === part);
          return described?.schema.enum?.[0] ?? '1';
        });
    /** Where a request must not come through: nothing is told of the machine, and no fault is ours. */
    const expect = async (
      what: string,
      allowed: readonly number[] | null,
      ask: () => Promise<Response>,
    ): Promise<void> => {
      requests++;
      try {
        const answer = await ask();
        const text = answer.headers.get('content-type')?.startsWith('text/event-stream')
          ? ''
          : await answer.text();
        if (!text) await answer.body?.cancel();
        const isWrong = allowed ? !allowed.includes(answer.status) : answer.status >= 500;
        if (isWrong) faults.push(`${what}: ${answer.status} ${text.slice(0, 160)}`);
        if (/node_modules|\/work\/|\/tmp\/pebble|\bat [\w.]+ \((?:\/|node:|file:)|SQLITE_|root:x:/.test(text))
          faults.push(`${what} tells of the machine: ${text.slice(0, 200)}`);
      } catch (error) {
        if (!app.isAlive) throw new Error(`The application ended at ${what}. ${app.output}`);
        // A connection may be closed on somebody who sends too much.
        if (allowed) faults.push(`${what}: ${String(error)}`);
      }
    };
    const { authorization } = withKey(folder);
    const at = `${app.address}/api/v1`;
    const plain = (path: string, init: RequestInit = {}): Promise<Response> => fetch(at + path, init);
    const known = (path: string, init: RequestInit = {}): Promise<Response> =>
      plain(path, {
        ...init,
        headers: { authorization, ...(init.headers as object) },
        signal: AbortSignal.timeout(15_000),
      });

    for (const operation of operations) {
      const { path, method } = operation;
      const good = filled(operation);
      if (path !== '/health') {
        await expect(`${method} ${path} without a key`, [401], () => plain(good, { method }));
        await expect(`${method} ${path} with a wrong key`, [401], () =>
          plain(good, { method, headers: { authorization: 'Bearer x' } }),
        );
        await expect(`${method} ${path} from another page`, [403], () =>
          known(good, { method, headers: { origin: 'http://localhost:3000' } }),
        );
        await expect(`${method} ${path} from another site`, [403], () =>
          known(good, { method, headers: { 'sec-fetch-site': 'cross-site' } }),
        );
      }
      if (path.includes('{'))
        for (const id of ODD_IDS)
          await expect(`${method} ${path} with ${id.slice(0, 30)}`, null, () =>
            known(path.replace(/\{\w+\}/g, id), { method }),
          );
      if (method === 'GET')
        for (const query of ODD_QUERIES)
          await expect(`${method} ${path}${query.slice(0, 60)}`, null, () => known(good + query));
      else if (method !== 'DELETE')
        for (const [what, body, type] of ODD_BODIES)
          await expect(`${method} ${path} with ${what}`, null, () =>
            known(good, { method, body, headers: { 'content-type': type } }),
          );
    }
    for (const method of ['PUT', 'PROPFIND', 'DELETE'])
      await expect(`${method} /studies`, [404, 405], () => known('/studies', { method })).catch(
        () => undefined,
      );

    for (const raw of RAW)
      for (const target of [port, port + 1]) {
        requests++;
        await sent(raw, target);
        if (!app.isAlive || !(await app.isReady()))
          throw new Error(`The application ended at ${JSON.stringify(raw.slice(0, 60))}. ${app.output}`);
      }
    await pause(200);
    if (app.output) faults.push(`the application said: ${app.output}`);
    await app.stop();
    const after = keptIn(folder);
    faults.push(...after.faults);
    // New studies, readings and runs may have come of it; what people wrote, and what was made of it, is as it was.
    for (const table of UNTOUCHED)
      if (after.rows[table] !== before.rows[table])
        faults.push(`${table}: ${after.rows[table]} rows instead of ${before.rows[table]}`);
    return { requests, faults };
  } finally {
    await app.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Writes bytes to a port and waits a moment for what comes; breaks off in the end. */
async function sent(raw: string, port: number): Promise<void> {
  const socket = connect(port, '127.0.0.1');
  socket.on('error', () => undefined);
  socket.on('data', () => undefined);
  await once(socket, 'connect').catch(() => undefined);
  socket.write(Buffer.from(raw.replaceAll('HOST', `127.0.0.1:${port}`), 'latin1'));
  await Promise.race([once(socket, 'close').catch(() => undefined), pause(120)]);
  socket.destroy();
}
