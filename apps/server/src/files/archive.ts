import { createWriteStream, rmSync, statSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { basename } from 'node:path/posix';
import { crc32 } from 'node:zlib';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { isDiskFull } from './diskFull';

/** Files of an archive at most, and their bytes together at most as many times those of the archive. */
const MOST_FILES = 2000;
const LARGEST_GROWTH = 200;
const SMALL = 64 * 1024 ** 2;
const LARGEST_WORKBOOK = 500 * 1024 ** 2;

/** Characters of the name of a file, from its end. */
const LONGEST_NAME = 250;

/** An archive that is not unpacked, and why. */
export class BrokenArchive extends Error {}

/** A file of an archive: its own name, without folders, and where its bytes are now. */
export interface UnpackedFile {
  readonly name: string;
  readonly path: string;
}

/** What came out of an archive; a file that is damaged keeps no other from coming. */
interface Unpacked {
  readonly files: readonly UnpackedFile[];
  readonly damaged: readonly { readonly name: string; readonly reason: string }[];
}

/**
 * Unpacks a zip archive, each file to a fresh path; no path from the archive is ever used. Folders, hidden files and the leftovers of
 * operating systems are passed by; a file whose bytes do not fit its checksum is told and left out. Throws BrokenArchive when it has too many files or grows beyond reason, and leaves nothing behind.
 */
export async function unpack(
  archive: string,
  {
    size,
    largest,
    freshPath,
    further,
  }: {
    /** Bytes of the archive. */
    readonly size: number;
    /** Bytes of one file at most. */
    readonly largest: number;
    /** Gives a new path for each file. */
    readonly freshPath: () => string;
    /** Told of each piece. */
    readonly further: () => void;
  },
): Promise<Unpacked> {
  const zip = await open(archive);
  const files: UnpackedFile[] = [];
  const damaged: { name: string; reason: string }[] = [];
  let bytes = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      const name = basename(entry.fileName).slice(-LONGEST_NAME);
      if (entry.fileName.endsWith('/') || name.startsWith('.') || entry.fileName.startsWith('__MACOSX/'))
        continue;
      bytes += entry.uncompressedSize;
      if (files.length + damaged.length >= MOST_FILES)
        throw new BrokenArchive(`The archive has more than ${MOST_FILES} files.`);
      if (entry.uncompressedSize > largest || bytes > Math.max(SMALL, size * LARGEST_GROWTH))
        throw new BrokenArchive(
          'The archive would grow beyond reason when it is unpacked; nothing was taken from it.',
        );
      if (entry.isEncrypted())
        throw new BrokenArchive('The archive is locked with a password. Unpack it first.');
      const path = freshPath();
      files.push({ name, path });
      const fault = await write(zip, entry, path, further);
      if (!fault) continue;
      files.pop();
      rmSync(path, { force: true });
      damaged.push({ name, reason: `${fault} It is damaged, and nothing was taken from it.` });
    }
    return { files, damaged };
  } catch (error) {
    for (const { path } of files) rmSync(path, { force: true });
    if (error instanceof BrokenArchive) throw error;
    throw new BrokenArchive(
      `The archive cannot be unpacked: ${error instanceof Error ? error.message : String(error)}`,
    );
  } finally {
    zip.close();
  }
}

/** Writes the bytes of a file; says what is wrong with them, if anything is. */
async function write(zip: ZipFile, entry: Entry, path: string, further: () => void): Promise<string | null> {
  let sum = 0;
  const summing = async function* (bytes: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
    for await (const piece of bytes) {
      sum = crc32(piece, sum);
      further();
      yield piece;
    }
  };
  try {
    // The library checks that the bytes are as many as the archive says.
    await pipeline(await zip.openReadStreamPromise(entry), summing, createWriteStream(path));
  } catch (error) {
    if (isDiskFull(error)) throw error;
    return `It cannot be unpacked (${error instanceof Error ? error.message : String(error)}).`;
  }
  return sum === entry.crc32 ? null : 'Its bytes do not fit the checksum that the archive has for it.';
}

/** Throws BrokenArchive when the parts of a workbook would grow beyond reason. */
export async function checkWorkbook(path: string): Promise<void> {
  const zip = await open(path);
  try {
    const most = Math.min(LARGEST_WORKBOOK, Math.max(SMALL, statSync(path).size * LARGEST_GROWTH));
    let bytes = 0;
    for await (const entry of zip.eachEntry()) {
      bytes += entry.uncompressedSize;
      if (bytes > most)
        throw new BrokenArchive(
          `The workbook holds more than ${Math.floor(most / 1024 ** 2)} MB when it is unpacked. Save its sheet as CSV instead.`,
        );
    }
  } finally {
    zip.close();
  }
}

async function open(path: string): Promise<ZipFile> {
  try {
    return await openPromise(path, { autoClose: false });
  } catch (error) {
    throw new BrokenArchive(
      `The archive cannot be opened: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}
