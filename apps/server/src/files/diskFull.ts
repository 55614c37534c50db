/** Whether an error of the file system or of the database says that the disk is full. */
export function isDiskFull(error: unknown): boolean {
  const { code } = (error ?? {}) as { code?: unknown };
  return code === 'ENOSPC' || code === 'EDQUOT' || code === 'SQLITE_FULL';
}
