import { cpSync, mkdtempSync, openSync, closeSync, readdirSync, rmSync, statSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Problem, Step } from '@pebble/contract';
import { pages, prepare } from './prepared';
import { Served } from './served';

/** What came of files that were damaged on the disk. */
interface Damaged {
  readonly rounds: number;
  /** Starts that were refused with a sentence. */
  readonly refusedStarts: number;
  readonly answers: number;
  /** Of them those that said in a sentence what is damaged. */
  readonly said: number;
  readonly faults: readonly string[];
}

const RAW = /SQLITE_|node_modules|\/tmp\/|\bat [\w.]+ \(|Arrow|undefined|\[object/;

/** Writes nonsense over a part of the database or of a network's files, starts the application, and asks for everything. */
export async function damage(rounds: number, port: number): Promise<Damaged> {
  const base = mkdtempSync(join(tmpdir(), 'pebble-whole-'));
  const whole = await Served.start(base, port);
  const prepared = await prepare(whole);
  await whole.stop();
  const faults: string[] = [];
  let [refusedStarts, answers, said] = [0, 0, 0];
  try {
    for (let round = 0; round < rounds; round++) {
      const folder = mkdtempSync(join(tmpdir(), 'pebble-damaged-'));
      cpSync(base, folder, { recursive: true });
      const what = harm(folder, prepared.study, round);
      const app = await Served.start(folder, port).catch((error: unknown) => String(error));
      if (typeof app === 'string') {
        refusedStarts++;
        if (!/Pebble Thread cannot start\./.test(app) || RAW.test(app.replaceAll(folder, '')))
          faults.push(`${what}: ${app.slice(0, 300)}`);
      } else {
        const weave = {
          kind: 'weave',
          parameters: { name: 'x', weave: { what: 'accounts', kinds: ['reply'] } },
        };
        const asked: [string, string, unknown?][] = [
          ...pages(prepared).map((path): [string, string] => ['GET', path]),
          ['POST', `/studies/${prepared.study}/steps`, weave],
        ];
        for (const [method, path, body] of asked) {
          const answer = await app
            .ask<Partial<Problem & Step>>(method, path, body)
            .catch((error: unknown) => {
              faults.push(`${what}: ${method} ${path} ${String(error)}`);
              return null;
            });
          if (!app.isAlive) {
            faults.push(`${what}: the application ended at ${path}. ${app.output}`);
            break;
          }
          if (!answer) continue;
          answers++;
          const text = typeof answer.body === 'object' ? (answer.body.detail ?? answer.body.error ?? '') : '';
          if (text) said++;
          if (answer.status >= 500 || RAW.test(text))
            faults.push(
              `${what}: ${answer.status} ${method} ${path} ${JSON.stringify(answer.body).slice(0, 200)}`,
            );
        }
        await app.kill();
      }
      rmSync(folder, { recursive: true, force: true });
    }
    return { rounds, refusedStarts, answers, said, faults };
  } finally {
    rmSync(base, { recursive: true, force: true });
  }
}

/** Damages one file, and says how. */
function harm(folder: string, study: string, round: number): string {
  const network = join(folder, 'studies', study, 'networks');
  const files = [
    join(folder, 'studies', study, 'study.sqlite'),
    join(folder, 'catalogue.sqlite'),
    ...readdirSync(network).flatMap((id) =>
      readdirSync(join(network, id)).map((name) => join(network, id, name)),
    ),
  ];
  // Every other round the database, which holds most.
  const path = round % 2 === 0 ? files[0] : files[1 + (Math.floor(round / 2) % (files.length - 1))];
  const { size } = statSync(path);
  const at = Math.floor(Math.random() * size);
  const file = openSync(path, 'r+');
  writeSync(file, Buffer.alloc(Math.min(8192, size - at), 0x5a), 0, undefined, at);
  closeSync(file);
  return `${path.slice(folder.length + 1)} from byte ${at}`;
}
