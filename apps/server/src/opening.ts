import { randomUUID } from 'node:crypto';
import { constants, copyFileSync } from 'node:fs';
import type { OpeningStudy } from '@pebble/contract';
import { StepRefused } from './errors/stepErrors';
import { uploadPath } from './files/places';
import type { Runner } from './runner/runner';
import { newStudyId } from './storage/ids';
import { readManifest } from './storage/savedStudy/readPackage';
import type { StudyFolders } from './storage/studyFolders';

/** Makes a study for what stands in a saved file; the step `open-study` takes it in. Throws BadPackage. */
export async function beginOpening(
  studies: StudyFolders,
  runner: Runner,
  id: string,
  path: string,
  file: string,
): Promise<OpeningStudy> {
  const { lastStep } = await readManifest(path);
  const { folder } = await runner.alone(id, () => studies.beginOpening(id, lastStep));
  return { study: id, upload: copyToUploads(folder, path), file, by: 'open-study' };
}

/** Begins a study for a package with a map; the step `open-package` takes it in. */
export async function beginOpeningPackage(
  studies: StudyFolders,
  runner: Runner,
  path: string,
  file: string,
  title: string | null,
): Promise<OpeningStudy> {
  const id = newStudyId();
  const name = title ?? (file.replace(/(\.package)?\.zip$/i, '').trim() || 'Package');
  const { step } = await runner.submit(id, {
    kind: 'create-study',
    parameters: { name: name.slice(0, 200) },
  });
  if (step.state !== 'done') throw new StepRefused(step.error ?? 'It was stopped.');
  const { folder } = studies.storeOf(id)!;
  return { study: id, upload: copyToUploads(folder, path), file, by: 'open-package' };
}

function copyToUploads(folder: string, path: string): string {
  const upload = randomUUID();
  copyFileSync(path, uploadPath(folder, upload), constants.COPYFILE_FICLONE);
  return upload;
}
