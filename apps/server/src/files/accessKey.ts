import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** 256 random bits (RFC 4648, base64url). */
const BYTES = 32;
const WHOLE = /^[\w-]{43}$/;

/** The file of a data folder that holds its key. */
export const keyPath = (folder: string): string => join(folder, 'access-token');

/** The key of a data folder, which whoever asks for its data must have; made when there is none, or none that is whole. */
export function accessKey(folder: string): string {
  const path = keyPath(folder);
  const kept = existsSync(path) ? readFileSync(path, 'utf8').trim() : '';
  if (WHOLE.test(kept)) return kept;
  const key = randomBytes(BYTES).toString('base64url');
  // Another process never reads half a key.
  writeFileSync(`${path}.part`, `${key}\n`, { mode: 0o600 });
  renameSync(`${path}.part`, path);
  return key;
}
