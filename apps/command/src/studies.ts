import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync } from 'node:fs';
import { basename } from 'node:path';
import type { SentFile, Step, StepKind, Study } from '@pebble/contract';
import { BadPackage, beginOpening, newStudyId, uploadPath, type Engine } from '@pebble/server/engine';
import { Refused } from './errors';
import type { Telling } from './telling';

/** Does a step and what follows it. Throws Refused where it was not done. */
export async function step(
  { runner }: Engine,
  study: string,
  kind: StepKind,
  parameters: Record<string, unknown>,
): Promise<Step> {
  const { step: done } = await runner.submit(study, { kind, parameters });
  if (done.state !== 'done') throw new Refused(done.error ?? 'The step was stopped.');
  await runner.quiet(study);
  return done;
}

export async function newStudy(engine: Engine, name: string): Promise<string> {
  const id = newStudyId();
  await step(engine, id, 'create-study', { name });
  return id;
}

/** The study with this id, or of this name. Throws Refused. */
export function findStudy({ studies }: Engine, wanted: string): Study {
  const all = studies.list().studies;
  const found = all.filter(({ id, name }) => id === wanted || name === wanted);
  if (found.length === 1) return found[0];
  if (found.length > 1)
    throw new Refused(
      `${found.length} studies are called “${wanted}”; name one by its id: ${found.map(({ id }) => id).join(', ')}.`,
    );
  throw new Refused(
    `There is no study “${wanted}”. ${all.length === 0 ? 'There are no studies.' : `There are ${all.map(({ name }) => `“${name}”`).join(', ')}.`}`,
  );
}

/** A file on the disk, and what it is called in a study. */
export interface GivenFile {
  readonly path: string;
  readonly file: string;
}

/** Puts a file where steps of a study read it; gives its id. Throws Refused. */
export function sendFile({ studies }: Engine, study: string, { path, file }: GivenFile): SentFile {
  if (!existsSync(path)) throw new Refused(`There is no file ${path}.`);
  const upload = randomUUID();
  copyFileSync(path, uploadPath(studies.folderOf(study), upload));
  return { upload, file };
}

/** Says how far the steps of a study are, until it is ended. */
export function telling({ runner }: Engine, study: string, told: Telling): () => void {
  return runner.listen(study, (event) => {
    if (event.type === 'progress')
      told.progress(`${event.progress.kind}: ${event.progress.phase}`, event.progress.share);
  });
}

/** Opens a study that was saved as one file; gives its id. Throws Refused. */
export async function openSaved(engine: Engine, path: string, told: Telling): Promise<string> {
  if (!existsSync(path)) throw new Refused(`There is no file ${path}.`);
  try {
    const { study, by, upload, file } = await beginOpening(
      engine.studies,
      engine.runner,
      newStudyId(),
      path,
      basename(path),
    );
    const stop = telling(engine, study, told);
    await step(engine, study, by, { upload, file }).finally(stop);
    return study;
  } catch (error) {
    throw error instanceof BadPackage ? new Refused(`${path} cannot be opened. ${error.message}`) : error;
  }
}
