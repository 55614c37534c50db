import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { skippedLists } from '../../files/places';
import type { Progress } from '../../threads/progress';
import { MANIFEST, Manifest, PACKAGE_FORMAT, PACKAGE_VERSION } from './manifest';

/** The files of a study beside its database, by their places: not what waits to be taken in, nor what can be made anew. */
export function studyFiles(folder: string): string[] {
  const namesIn = (part: string): string[] => {
    const path = join(folder, part);
    return existsSync(path) ? readdirSync(path).sort() : [];
  };
  return [
    ...namesIn('networks').flatMap((id) =>
      namesIn(`networks/${id}`)
        .filter((name) => name.endsWith('.arrow'))
        .map((name) => `networks/${id}/${name}`),
    ),
    ...skippedLists(folder).map((path) => `uploads/${basename(path)}`),
    ...namesIn('collecting')
      .filter((name) => name.endsWith('.jsonl'))
      .map((name) => `collecting/${name}`),
  ];
}

const README = `A study of Pebble Thread, saved as one file.

study.sqlite        an SQLite database: messages, accounts, tidy decisions, networks and the logbook
networks/ID/        the tables of each network, Apache Arrow files (nodes, edges, evidence: which messages stand behind a tie)
uploads/            rows of imports that were left out, CSV
collecting/         what runs brought that had not ended, JSON Lines
manifest.json       what this is, and the SHA-256 of each file

Any program that reads these formats reads what is in here.
`;

/**
 * Writes a study into one zip file.
 * @param database a copy of its database that nobody uses
 * @param target a path at which there is nothing; left without a file where it does not come to its end
 */
export async function writePackage(
  folder: string,
  database: string,
  target: string,
  about: Pick<Manifest, 'tables' | 'name' | 'savedAt' | 'messages' | 'lastStep'>,
  progress: Progress,
): Promise<{ files: number; bytes: number }> {
  const paths = [
    ['study.sqlite', database] as const,
    ...studyFiles(folder).map((place) => [place, join(folder, place)] as const),
  ];
  const total = paths.reduce((sum, [, path]) => sum + statSync(path).size, 0);
  // Each byte is read twice: for its checksum, and to be packed.
  let read = 0;
  const counted = (piece: Buffer): void => {
    read += piece.length;
    progress('Saving', Math.min(1, read / Math.max(1, 2 * total)));
  };
  const files: Manifest['files'] = [];
  for (const [place, path] of paths) {
    const sum = createHash('sha256');
    let bytes = 0;
    for await (const piece of createReadStream(path) as AsyncIterable<Buffer>) {
      sum.update(piece);
      bytes += piece.length;
      counted(piece);
    }
    files.push({ place, bytes, sha256: sum.digest('hex') });
  }
  const manifest = Manifest.parse({ format: PACKAGE_FORMAT, version: PACKAGE_VERSION, ...about, files });
  const zip = new ZipFile();
  const mtime = new Date(about.savedAt);
  zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`), MANIFEST, { mtime });
  zip.addBuffer(Buffer.from(README), 'README.txt', { mtime });
  for (const [place, path] of paths)
    zip.addReadStreamLazy(place, { mtime, size: statSync(path).size }, (give) => {
      const stream = createReadStream(path);
      stream.on('data', (piece) => counted(piece as Buffer));
      give(null, stream);
    });
  zip.end();
  try {
    await pipeline(zip.outputStream, createWriteStream(target, { flags: 'wx', mode: 0o600 }));
  } catch (error) {
    rmSync(target, { force: true });
    throw error;
  }
  return { files: files.length, bytes: statSync(target).size };
}
