import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { pino } from 'pino';
import request from 'supertest';
import { SOURCE_MATERIALS, type Preview, type Step, type StepKind } from '@pebble/contract';
import type { Config } from '../config';
import { studyFolder } from '../storage/open';
import { start, type Running } from '../start';

const root = join(__dirname, '../../../..');
/** Where the programs of threads are built for tests. */
export const builtThreads = join(root, 'apps/server/dist/test');

/** The program of the threads that run steps. */
export const workerFile = join(builtThreads, 'runner/thread.cjs');

/** The threads run built code. @param more further programs that a test runs */
export function buildThreads(more: readonly string[] = []): void {
  buildSync({
    absWorkingDir: root,
    entryPoints: [
      'runner/thread.cjs',
      'runner/worker.ts',
      'intake/thread.ts',
      'measuring/pathsThread.ts',
      ...more,
    ].map((name) => `apps/server/src/${name}`),
    loader: { '.cjs': 'copy' },
    outdir: builtThreads,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20.19',
    packages: 'external',
    alias: {
      '@pebble/contract': './packages/contract/src/index.ts',
      '@pebble/core/files': './packages/core/src/files.ts',
      '@pebble/core/letters': './packages/core/src/letters.ts',
      '@pebble/core/pdf': './packages/core/src/pdf.ts',
      '@pebble/core/documents': './packages/core/src/documents.ts',
      '@pebble/core': './packages/core/src/index.ts',
    },
    logLevel: 'error',
  });
}

/** Settings of an application on a free port, without an interface. */
export const testConfig = (dataFolder: string): Config => ({
  host: '127.0.0.1',
  port: 0,
  standinsPort: null,
  dataFolder,
  webFolder: null,
  largestUpload: 1e8,
  mostRows: 50_000,
  longestLook: 10_000,
});

/** What came of looking at a file. */
export interface Looked {
  readonly id: string;
  readonly preview: Preview;
}

/** The application with a fresh data folder and one study, spoken to through its API. */
export class TestApplication {
  /** With a dot in its path, as the usual one has. */
  readonly folder = mkdtempSync(join(tmpdir(), '.pebble-'));
  study = '';
  private running!: Running;

  constructor(private readonly settings: Partial<Config> = {}) {}

  async begin(): Promise<void> {
    this.running = await start(
      { ...testConfig(this.folder), ...this.settings },
      { demo: false, workerFile, log: pino({ level: 'silent' }) },
    );
    if (this.study === '') {
      const { body } = await this.api.post('/api/v1/studies').send({ name: 'Test' }).expect(201);
      this.study = (body as { id: string }).id;
    }
  }

  /** Stops it and keeps its data. */
  stop(): Promise<void> {
    return this.running.close();
  }

  async end(): Promise<void> {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** Where the study lies. */
  get studyFolder(): string {
    return studyFolder(this.folder, this.study);
  }

  get address(): string {
    return this.running.address;
  }

  /** Asks with the key. */
  get api() {
    return request.agent(this.running.address).set(this.withKey);
  }

  /** What everybody sends who has the key. */
  get withKey() {
    return { authorization: `Bearer ${this.running.key}` };
  }

  get key(): string {
    return this.running.key;
  }

  send(name: string, body: string | Uint8Array) {
    return this.api
      .post(`/api/v1/studies/${this.study}/uploads`)
      .set('content-type', 'application/octet-stream')
      .set('x-file-name', encodeURIComponent(name))
      .send(Buffer.from(body as Uint8Array));
  }

  /** Sends one file that can be read. */
  async look(name: string, body: string | Uint8Array): Promise<Looked> {
    const answer = await this.send(name, body).expect(201);
    return (answer.body as { uploads: Looked[] }).uploads[0];
  }

  step(kind: StepKind, parameters: object) {
    return this.api.post(`/api/v1/studies/${this.study}/steps`).send({ kind, parameters });
  }

  /** Sends a file and takes it in as it was read. */
  async take(name: string, body: string | Uint8Array): Promise<Step> {
    const { id, preview } = await this.look(name, body);
    const kind = SOURCE_MATERIALS.includes(preview.reading.material) ? 'import-source' : 'import-network';
    const answer = await this.step(kind, { upload: id, file: name, name, reading: preview.reading }).expect(
      200,
    );
    return answer.body as Step;
  }

  /** Reads a part of the study. */
  async get<T>(path: string, query: object = {}): Promise<T> {
    return (await this.api.get(`/api/v1/studies/${this.study}/${path}`).query(query).expect(200)).body as T;
  }

  /** Waits until steps that follow by themselves have come to their end. */
  async followed(kind: StepKind): Promise<void> {
    for (let i = 0; i < 600; i++) {
      const { steps } = await this.get<{ steps: Step[] }>('logbook');
      if (steps.some((step) => step.kind === kind && step.state === 'done')) return;
      await new Promise((done) => setTimeout(done, 50));
    }
    throw new Error(`No step ${kind} came to its end.`);
  }

  /** The first page of a list, by its name. */
  async list<T>(path: string, name = path): Promise<T[]> {
    return (await this.get<Record<string, T[]>>(path))[name];
  }
}

/** An application for the tests of a file or a part of it: it is begun before them and ended after them. */
export function startedApplication(settings: Partial<Config> = {}): TestApplication {
  const app = new TestApplication(settings);
  beforeAll(async () => {
    buildThreads();
    await app.begin();
  }, 60_000);
  afterAll(() => app.end());
  return app;
}
