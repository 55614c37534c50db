import { statfsSync } from 'node:fs';

/** Said of a step that the disk had no room for. */
export const STEP_NEEDS_ROOM = 'The disk is full. Nothing of this step was kept; make room and run it again.';

/** There is no room where something has to be written. */
export class DiskFull extends Error {
  readonly code = 'ENOSPC';
}

/** Whether an error of the file system or of the database says that the disk is full. */
export function isDiskFull(error: unknown): boolean {
  const { code } = (error ?? {}) as { code?: unknown };
  return code === 'ENOSPC' || code === 'EDQUOT' || code === 'SQLITE_FULL';
}

/** Bytes that are free where a folder lies. */
export function roomIn(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}
