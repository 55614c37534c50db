import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import type { Step } from '@pebble/contract';
import { withKey } from '../key';

const MAIN = 'apps/server/dist/main.js';
/** Milliseconds within which an application is ready, also on a busy machine. */
const PATIENCE = 60_000;

/** Milliseconds that an answer may take at all. */
const LONGEST = 150_000;

interface Answer<T = unknown> {
  readonly status: number;
  readonly body: T;
}

export const pause = (time: number): Promise<void> => new Promise((done) => setTimeout(done, time));

/** The built application in a process of its own, on a data folder that the caller gives. */
export class Served {
  private constructor(
    readonly folder: string,
    readonly port: number,
    private readonly process: ChildProcess,
    private readonly said: string[],
  ) {}

  static async start(folder: string, port: number, { standins = false, demo = false } = {}): Promise<Served> {
    const server = spawn(
      process.execPath,
      [MAIN, ...(demo ? [] : ['--empty']), ...(standins ? [] : ['--no-standins'])],
      {
        // As npm start has it.
        env: { MALLOC_ARENA_MAX: '2', ...process.env, PORT: String(port), PEBBLE_DATA: folder },
        stdio: ['ignore', 'ignore', 'pipe'],
      },
    );
    const said: string[] = [];
    server.stderr.on('data', (text) => said.push(String(text)));
    const begun = Date.now();
    const served = new Served(folder, port, server, said);
    while (!(await served.isReady())) {
      if (!served.isAlive || Date.now() - begun > PATIENCE)
        throw new Error(`The application did not start. ${served.output}`);
      await pause(20);
    }
    return served;
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** What it wrote about faults. */
  get output(): string {
    return this.said.join('').slice(-2000);
  }

  get isAlive(): boolean {
    return this.process.exitCode === null && this.process.signalCode === null;
  }

  /** Megabytes that the process holds now. */
  get memory(): number {
    const status = readFileSync(`/proc/${this.process.pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
  }

  isReady(): Promise<boolean> {
    return fetch(`${this.address}/api/v1/health`).then(
      ({ ok }) => ok,
      () => false,
    );
  }

  /** Asks with the key; the body is JSON, text where it is none. */
  async ask<T>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const isRaw = typeof body === 'string' || body instanceof Uint8Array;
    const init: RequestInit = {
      method,
      headers: {
        ...withKey(this.folder),
        ...(body === undefined
          ? {}
          : { 'content-type': isRaw ? 'application/octet-stream' : 'application/json' }),
        ...headers,
      },
      body: body === undefined ? null : isRaw ? (body as BodyInit) : JSON.stringify(body),
      signal: AbortSignal.timeout(LONGEST),
    };
    const ask = (): Promise<Response> => fetch(`${this.address}/api/v1${path}`, init);
    const answer = await ask()
      // A connection that rested is closed by the server now and then just as it is used again: browsers ask once more, too.
      .catch((error: unknown) => {
        if (method !== 'GET' || !this.isAlive) throw error;
        return ask();
      })
      .catch((error: unknown) => {
        const { cause } = error as { cause?: unknown };
        throw new Error(`${method} ${path} was not answered: ${String(error)} ${String(cause ?? '')}`);
      });
    const text = await answer.text();
    try {
      return { status: answer.status, body: JSON.parse(text) as T };
    } catch {
      return { status: answer.status, body: text as T };
    }
  }

  /** The same where nothing else but success is right. */
  async succeed<T>(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<T> {
    const answer = await this.ask<T>(method, path, body, headers);
    if (answer.status >= 300)
      throw new Error(`${answer.status} ${method} ${path}: ${JSON.stringify(answer.body).slice(0, 300)}`);
    return answer.body;
  }

  send<T>(study: string, name: string, body: string | Uint8Array): Promise<Answer<T>> {
    return this.ask('POST', `/studies/${study}/uploads`, body, { 'x-file-name': encodeURIComponent(name) });
  }

  /** Ends it as a power cut would. */
  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }

  async stop(): Promise<void> {
    await this.end('SIGTERM');
  }

  private async end(signal: NodeJS.Signals): Promise<void> {
    if (!this.isAlive) return;
    const gone = once(this.process, 'exit');
    this.process.kill(signal);
    await gone;
  }
}

/** Waits until no step of a study runs and none follows. */
export async function idle(app: Served, study: string): Promise<readonly Step[]> {
  for (let quiet = 0, before = -1; ;) {
    const { steps } = await app.succeed<{ steps: Step[] }>('GET', `/studies/${study}/logbook?limit=1000`);
    const isQuiet =
      steps.length === before && steps.every(({ state }) => state !== 'running' && state !== 'waiting');
    quiet = isQuiet ? quiet + 1 : 0;
    if (quiet === 5) return steps;
    before = steps.length;
    await pause(40);
  }
}
