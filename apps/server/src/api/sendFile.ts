import { rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import type { ExportedFile } from '../exports/writtenFile';

/** Sends a file. Throws while nothing is sent yet where it cannot be opened; one who goes away meanwhile is no error. */
export async function streamFile(response: Response, path: string): Promise<void> {
  const file = await open(path);
  try {
    await pipeline(file.createReadStream({ autoClose: false }), response);
  } catch (error) {
    if (!response.closed && !response.destroyed) throw error;
  } finally {
    await file.close();
  }
}

/** Sends a file that was written for this, and takes it away. */
export async function sendFile(response: Response, { path, name, type }: ExportedFile): Promise<void> {
  response.attachment(name).type(type);
  try {
    await streamFile(response, path);
  } finally {
    rmSync(path, { force: true });
  }
}
