import { buffer } from 'node:stream/consumers';
import { BadPackage, withZip } from './openedZip';

/** The map of a package, by which a package is known. */
export const MAP = 'map/map.json';
/** The checksums of its other files, as sha256sum writes them. */
export const CHECKSUMS = 'checksums.sha256';
/** What describes its files. */
export const DESCRIPTOR = 'datapackage.json';

/** Bytes of a descriptor at most that is read for its title. */
const LARGEST = 64 * 1024 ** 2;

/** What a file is called, if it is a package with a map; null where it is none. */
export async function packageTitle(path: string): Promise<{ readonly title: string | null } | null> {
  try {
    return await withZip(path, async (zip) => {
      let hasMap = false;
      let title: string | null = null;
      for await (const entry of zip.eachEntry()) {
        hasMap ||= entry.fileName === MAP;
        if (entry.fileName === DESCRIPTOR && entry.uncompressedSize < LARGEST && !entry.isEncrypted())
          title = titleIn(await buffer(await zip.openReadStreamPromise(entry)));
      }
      return hasMap ? { title } : null;
    });
  } catch (error) {
    if (error instanceof BadPackage) return null;
    throw error;
  }
}

/** The title that a descriptor gives; null where it gives none. */
export function titleIn(descriptor: Buffer | undefined): string | null {
  try {
    const { title } = JSON.parse(descriptor?.toString('utf8') ?? '{}') as { title?: unknown };
    return typeof title === 'string' && title.trim() !== '' ? title.trim().slice(0, 200) : null;
  } catch {
    return null;
  }
}
