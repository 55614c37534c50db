import { createHash } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import {
  STEP_TRAITS,
  type Routine,
  type RoutineAnswers,
  type RoutineRun,
  type StepKind,
} from '@pebble/contract';
import { uploadPath } from '../files/places';
import { isAmong } from '../storage/lists';
import type { Store } from '../storage/open';
import { everySource } from '../storage/sources';
import { VERSION } from '../version';
import { filesAmong } from './readFiles';

/** The files of answers with the hashes of their bytes, by the questions that they answer. */
export async function inputsOf({ folder }: Store, answers: RoutineAnswers): Promise<RoutineRun['inputs']> {
  const inputs: Record<string, { file: string; sha256: string }[]> = {};
  for (const [name, answer] of Object.entries(answers)) {
    const files = filesAmong({ [name]: answer });
    if (files.length === 0) continue;
    inputs[name] = [];
    for (const { upload, file } of files)
      inputs[name].push({ file, sha256: (await hashOf(uploadPath(folder, upload))) ?? '' });
  }
  return inputs;
}

/** Kinds of steps after which a weave can give something else. What follows an import by itself does always. */
const OF_MATERIAL = (Object.keys(STEP_TRAITS) as StepKind[]).filter((kind) => {
  const { changes, chapter } = STEP_TRAITS[kind];
  return kind !== 'detect-languages' && (changes.includes('messages') || chapter === 'tidying');
});

/** A hash of what a study has: its sources, and all that was decided of them; empty where it has nothing. */
export async function materialOf(store: Store): Promise<string> {
  const sources = (await everySource(store))
    .filter(({ removedAt }) => removedAt === null)
    .map(({ name, report }) => [name, report.read, report.kept]);
  const steps = await store.query
    .selectFrom('step')
    .select(['kind', 'parameters'])
    .where('state', '=', 'done')
    .where(isAmong('kind', OF_MATERIAL))
    .orderBy('id')
    .execute();
  const decided = steps.map(({ kind, parameters }) => [kind, withoutUploads(JSON.parse(parameters))]);
  return sources.length + decided.length === 0 ? '' : sha256(JSON.stringify([sources, decided]));
}

/**
 * A hash of a routine, its answers, the bytes of its files and the material that was there before: with the same one, the same version of the
 * application gives the same results. Names of uploads, which differ each time, do not count.
 */
export function fingerprintOf(
  { questions, steps, outputs }: Routine,
  answers: RoutineAnswers,
  { inputs, material }: { readonly inputs: RoutineRun['inputs']; readonly material: string },
): string {
  const others = Object.entries(answers).filter(([, answer]) => filesAmong({ answer }).length === 0);
  const all = {
    version: VERSION,
    questions,
    steps,
    outputs,
    answers: Object.fromEntries(others.sort()),
    files: Object.entries(inputs).sort(),
    material,
  };
  return sha256(JSON.stringify(all));
}

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

function withoutUploads(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutUploads);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([name]) => name !== 'upload')
      .map(([name, one]) => [name, withoutUploads(one)]),
  );
}

async function hashOf(path: string): Promise<string | null> {
  if (!existsSync(path)) return null;
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}
