import { createHash } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { Routine, RoutineAnswers } from '@pebble/contract';
import { uploadPath } from '../files/places';
import { readSources } from '../storage/sources';
import type { Store } from '../storage/open';
import { VERSION } from '../version';
import { filesAmong } from './readFiles';

/**
 * A hash of a routine, its answers, the bytes of its files and the material that was there before: with the same one, the same version of the
 * application gives the same results. Names of uploads, which differ each time, do not count.
 */
export async function fingerprint(store: Store, routine: Routine, answers: RoutineAnswers): Promise<string> {
  const files = await Promise.all(
    filesAmong(answers).map(async ({ upload, file }) => ({
      file,
      bytes: await hashOf(uploadPath(store.folder, upload)),
    })),
  );
  const { questions, steps, outputs } = routine;
  const others = Object.entries(answers).filter(([, answer]) => filesAmong({ answer }).length === 0);
  const { sources } = await readSources(store, { offset: 0, limit: 1000 });
  const material = sources.map(({ name, report }) => [name, report.read, report.kept]);
  const all = {
    version: VERSION,
    questions,
    steps,
    outputs,
    answers: Object.fromEntries(others.sort()),
    files,
    material,
  };
  return createHash('sha256').update(JSON.stringify(all)).digest('hex');
}

async function hashOf(path: string): Promise<string | null> {
  if (!existsSync(path)) return null;
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}
