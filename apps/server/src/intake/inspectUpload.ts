import { randomUUID } from 'node:crypto';
import { appendFileSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import type { Preview, ImportMapping, RefusedFile, UploadAnswer } from '@pebble/contract';
import { isWorkbook, isZip, previewFile, UnreadableFile } from '@pebble/core/files';
import { packageTitle } from '../files/packageFile';
import { BrokenArchive, checkWorkbook, unpack, type UnpackedFile } from '../files/archive';
import { uploadPath } from '../files/places';
import { readHead } from '../files/textFile';

/** Formats that can only be looked at whole are read up to this many bytes. */
const LARGEST_WHOLE = 400 * 1024 ** 2;

/** Bytes that are looked at where the first ones say nothing: a single message can be larger than these. */
const SECOND_LOOK = 16 * 1024 ** 2;

/** A first look at an uploaded file. Throws UnreadableFile. */
export async function lookAt(path: string, name: string, chosen?: Partial<ImportMapping>): Promise<Preview> {
  const { head, size } = readHead(path);
  if (isWorkbook(head)) await asUnreadable(() => checkWorkbook(path));
  const whole = (): Uint8Array => {
    if (size > LARGEST_WHOLE)
      throw new UnreadableFile(
        'A file of this format may have at most 400 MB. Save it as a table (CSV) instead.',
      );
    return readFileSync(path);
  };
  try {
    return await previewFile({ name, head, size, whole }, chosen);
  } catch (error) {
    if (!(error instanceof UnreadableFile) || size <= head.length) throw error;
    return previewFile({ name, head: readHead(path, SECOND_LOOK).head, size, whole }, chosen);
  }
}

const PACKAGE =
  'This is a package with a map, and no messages are in it. Open it on Weave, below the networks, or on the page of studies.';

/**
 * Takes an uploaded file in: looks at it, or at every file of an archive. A file that cannot be read does not concern the others; its
 * bytes are forgotten.
 * @param largest bytes of one file at most
 * @param further told whenever something more of an archive was read
 */
export async function inspectUpload(
  folder: string,
  id: string,
  name: string,
  largest: number,
  further: () => void = () => undefined,
): Promise<UploadAnswer> {
  const path = uploadPath(folder, id);
  const { head, size } = readHead(path);
  const answer: UploadAnswer = { uploads: [], refused: [] };
  if (!isZip(head) || isWorkbook(head)) {
    await take(answer, id, path, name);
    return answer;
  }
  let files: readonly UnpackedFile[];
  try {
    if (await packageTitle(path))
      return { uploads: [], refused: [{ file: name, reason: PACKAGE, row: null }] };
    const freshPath = (): string => uploadPath(folder, randomUUID());
    const { files: whole, damaged } = await unpack(path, { size, largest, freshPath, further });
    files = whole;
    for (const { name: file, reason } of damaged) answer.refused.push({ file, reason, row: null });
  } catch (error) {
    if (!(error instanceof BrokenArchive)) throw error;
    return { uploads: [], refused: [{ file: name, reason: error.message, row: null }] };
  } finally {
    rmSync(path, { force: true });
  }
  const mails = files.filter((file) => /\.eml$/i.test(file.name));
  if (mails.length > 1) {
    const box = joinMails(mails);
    const boxId = randomUUID();
    renameSync(box, uploadPath(folder, boxId));
    await take(answer, boxId, uploadPath(folder, boxId), `${name.slice(0, 250)}, ${mails.length} emails`);
  }
  for (const file of mails.length > 1 ? files.filter((one) => !mails.includes(one)) : files) {
    await take(answer, file.path.split(/[\\/]/).at(-1)!, file.path, file.name);
    further();
  }
  if (files.length + answer.refused.length === 0)
    answer.refused.push({ file: name, reason: 'The archive holds no files.', row: null });
  return answer;
}

async function take(answer: UploadAnswer, id: string, path: string, name: string): Promise<void> {
  try {
    answer.uploads.push({ id, preview: await lookAt(path, name) });
  } catch (error) {
    rmSync(path, { force: true });
    if (!(error instanceof UnreadableFile)) throw error;
    answer.refused.push({ file: name, reason: error.message, row: error.row } satisfies RefusedFile);
  }
}

/** Many single emails as one mailbox (RFC 4155), in a file in place of the first of them. */
function joinMails(mails: readonly UnpackedFile[]): string {
  const [{ path: box }] = mails;
  const parts = mails.map(({ path }) => readFileSync(path, 'latin1'));
  writeFileSync(box, '');
  mails.forEach(({ path }, i) => {
    const text = parts[i].replace(/\r\n?/g, '\n').replace(/^(>*From )/gm, '>$1');
    appendFileSync(box, `From mail@localhost Thu Jan 01 00:00:00 1970\n${text}\n\n`, 'latin1');
    if (path !== box) rmSync(path, { force: true });
  });
  return box;
}

async function asUnreadable<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof BrokenArchive) throw new UnreadableFile(error.message);
    throw error;
  }
}
