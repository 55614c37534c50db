import { statfsSync } from 'node:fs';

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
