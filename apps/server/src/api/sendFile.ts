import { createReadStream, rmSync } from 'node:fs';
import type { Response } from 'express';
import type { ExportedFile } from '../exports/writtenFile';

/** Sends a file that was written for this, and takes it away. */
export function sendFile(response: Response, { path, name, type }: ExportedFile): void {
  response.attachment(name).type(type);
  response.on('close', () => rmSync(path, { force: true }));
  createReadStream(path).pipe(response);
}
