import { openPromise, type ZipFile } from 'yauzl';

/** A file that is not what it should be, or not whole: the message says why. */
export class BadPackage extends Error {}

/** Reads in a zip. Throws BadPackage for what is none. */
export async function withZip<T>(path: string, work: (zip: ZipFile) => Promise<T>): Promise<T> {
  let zip: ZipFile;
  try {
    zip = await openPromise(path, { autoClose: false });
  } catch {
    throw new BadPackage('This is no zip file, or it is not whole.');
  }
  try {
    return await work(zip);
  } catch (error) {
    // What the library says of a broken archive.
    if (error instanceof Error && error.constructor === Error)
      throw new BadPackage(`It cannot be unpacked (${error.message}).`);
    throw error;
  } finally {
    zip.close();
  }
}
