import { createHash } from 'node:crypto';
import { createWriteStream, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Entry, ZipFile } from 'yauzl';
import { formatCount } from '@pebble/core';
import { isDiskFull, roomIn } from '../../files/diskFull';
import { StepCancelled } from '../../errors/stepErrors';
import type { Progress } from '../../threads/progress';
import { BadPackage, withZip } from '../../files/openedZip';
import { versionedJson } from '../../files/versionedJson';
import { MANIFEST, Manifest, PACKAGE_VERSION } from './manifest';

/** Bytes of the manifest at most: it names every file of a study. */
const LARGEST_MANIFEST = 64 * 1024 ** 2;

/** What a saved study says of itself. Throws BadPackage. */
export async function readManifest(path: string): Promise<Manifest> {
  return withZip(path, async (zip) => {
    for await (const entry of zip.eachEntry()) {
      if (entry.fileName !== MANIFEST) continue;
      return parse(await textOf(zip, entry));
    }
    throw new BadPackage('This is no study that was saved as one file: it has no manifest.');
  });
}

/**
 * Unpacks a saved study into a folder, every file of its manifest and nothing else, each checked. Throws BadPackage with the reason where
 * something does not fit.
 */
export async function unpackPackage(path: string, folder: string, progress: Progress): Promise<Manifest> {
  const manifest = await readManifest(path);
  const total = manifest.files.reduce((sum, { bytes }) => sum + bytes, 0);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  if (roomIn(folder) < total)
    throw new BadPackage(
      `The study needs ${formatCount(Math.ceil(total / 1024 ** 2))} MB, and so much is not free on the disk.`,
    );
  await eachFile(path, manifest, 'Unpacking', progress, (place) => {
    const target = join(folder, place);
    mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
    return createWriteStream(target, { flags: 'wx', mode: 0o600 });
  });
  return manifest;
}

/** Reads a saved study to its end, and checks every file of it. Throws BadPackage. */
export async function checkPackage(path: string, progress: Progress): Promise<void> {
  const nowhere = (): Writable => new Writable({ write: (_piece, _encoding, done) => done() });
  await eachFile(path, await readManifest(path), 'Checking', progress, nowhere);
}

/** Hands on the bytes of every file of a manifest, each checked. Throws BadPackage. */
async function eachFile(
  path: string,
  manifest: Manifest,
  phase: string,
  progress: Progress,
  targetOf: (place: string) => Writable,
): Promise<void> {
  const awaited = new Map(manifest.files.map((file) => [file.place, file]));
  if (awaited.size < manifest.files.length || !awaited.has('study.sqlite'))
    throw new BadPackage(
      'The manifest of this study does not fit: a file stands in it twice, or there is no database.',
    );
  const total = manifest.files.reduce((sum, { bytes }) => sum + bytes, 0);
  let done = 0;
  await withZip(path, async (zip) => {
    for await (const entry of zip.eachEntry()) {
      if (entry.fileName === MANIFEST || entry.fileName === 'README.txt') continue;
      const file = awaited.get(entry.fileName);
      if (!file)
        throw new BadPackage(
          `“${entry.fileName.slice(0, 80)}” is not named in its manifest. Nothing was opened.`,
        );
      awaited.delete(entry.fileName);
      const fits = await isWhole(zip, entry, file, targetOf, (bytes) => {
        done += bytes;
        progress(phase, Math.min(1, done / Math.max(1, total)));
      });
      if (!fits)
        throw new BadPackage(
          `${file.place} in it is damaged: its checksum does not fit. Nothing was opened.`,
        );
    }
  });
  const [missing] = awaited.keys();
  if (missing !== undefined) throw new BadPackage(`${missing} is missing in it. Nothing was opened.`);
}

async function isWhole(
  zip: ZipFile,
  entry: Entry,
  { place, bytes, sha256 }: Manifest['files'][number],
  targetOf: (place: string) => Writable,
  counted: (bytes: number) => void,
): Promise<boolean> {
  // What it says of its size is held against what comes, so that it cannot grow beyond.
  if (entry.uncompressedSize !== bytes || entry.isEncrypted()) return false;
  const sum = createHash('sha256');
  const summing = async function* (pieces: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
    for await (const piece of pieces) {
      sum.update(piece);
      counted(piece.length);
      yield piece;
    }
  };
  try {
    await pipeline(await zip.openReadStreamPromise(entry), summing, targetOf(place));
  } catch (error) {
    if (isDiskFull(error) || error instanceof StepCancelled) throw error;
    return false;
  }
  return sum.digest('hex') === sha256;
}

function parse(text: string): Manifest {
  return versionedJson(text, {
    schema: Manifest,
    newest: PACKAGE_VERSION,
    what: 'The manifest of this study',
  });
}

async function textOf(zip: ZipFile, entry: Entry): Promise<string> {
  if (entry.uncompressedSize > LARGEST_MANIFEST || entry.isEncrypted())
    throw new BadPackage('The manifest of this study cannot be read.');
  const pieces: Buffer[] = [];
  for await (const piece of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>)
    pieces.push(piece);
  return Buffer.concat(pieces).toString('utf8');
}
