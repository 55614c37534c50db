import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { newStudyId } from './storage/ids';
import type { StudyFolders } from './storage/studyFolders';
import { uploadPath } from './files/places';
import { lookAt } from './intake/inspectUpload';
import type { Runner } from './runner/runner';

const FILE = 'tidepost.jsonl';

/** Loads the made-up demo by the same steps that a researcher uses: one study ready-made, one that waits for files. */
export async function loadDemo(studies: StudyFolders, runner: Runner): Promise<void> {
  const empty = newStudyId();
  await runner.submit(empty, {
    kind: 'create-study',
    parameters: { name: 'Empty study for the files in demo/' },
  });
  const study = newStudyId();
  await runner.submit(study, { kind: 'create-study', parameters: { name: 'The lamps of Sallowmere' } });
  const upload = randomUUID();
  const bytes = new TextEncoder().encode(postsAsJsonLines(makePosts().posts));
  const path = uploadPath(studies.folderOf(study), upload);
  writeFileSync(path, bytes);
  const { reading } = await lookAt(path, FILE);
  await runner.submit(study, {
    kind: 'import-source',
    parameters: { upload, file: FILE, name: FILE, reading },
  });
  const weave = {
    what: 'accounts',
    kinds: ['reply', 'quote', 'mention', 'repost'],
    from: null,
    until: null,
    atLeast: 1,
    selfTies: false,
    isolates: true,
  };
  const { step } = await runner.submit(study, {
    kind: 'weave',
    parameters: { name: 'Who answers whom', weave },
  });
  const network = step.result?.['network'];
  await runner.submit(study, {
    kind: 'arrange-map',
    parameters: { network, layout: {}, upload: null, iterations: null, moved: 0 },
  });
}
