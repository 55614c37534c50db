import { rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import type { ExportedFile } from '../exports/writtenFile';

/** A file that stays where it is. */
export interface KeptFile {
  readonly kept: string;
  /** Under which name it is saved by a browser; without one it is shown. */
  readonly name?: string;
}

/** Bytes that are sent as they are: those at hand, a file that was written to be sent, or one that stays. */
export type Sendable = Uint8Array | ExportedFile | KeptFile;

/**
 * Sends bytes.
 * @param type their media type, where the file does not say its own
 */
export async function send(response: Response, type: string, given: Sendable): Promise<void> {
  if (given instanceof Uint8Array) {
    response.type(type).set('cache-control', 'no-store');
    response.send(Buffer.from(given.buffer, given.byteOffset, given.byteLength));
  } else if ('kept' in given) {
    if (given.name !== undefined) response.attachment(given.name);
    response.type(type).set('cache-control', 'no-store');
    await stream(response, given.kept);
  } else {
    response.attachment(given.name).type(given.type);
    try {
      await stream(response, given.path);
    } finally {
      rmSync(given.path, { force: true });
    }
  }
}

/** Throws while nothing is sent yet where the file cannot be opened; one who goes away meanwhile is no error. */
async function stream(response: Response, path: string): Promise<void> {
  const file = await open(path);
  try {
    await pipeline(file.createReadStream({ autoClose: false }), response);
  } catch (error) {
    if (!response.closed && !response.destroyed) throw error;
  } finally {
    await file.close();
  }
}
