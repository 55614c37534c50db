import { chmodSync, lstatSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const MODE = 0o777;

/**
 * Makes a data folder that is there for its owner alone (folders 700, files 600), also on a machine that others use too, and takes from
 * others what an older version or a copy left open. What lies deeper is closed with the folders that hold it.
 */
export function makeOwnerOnly(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    const found = lstatSync(path);
    const wanted = found.isDirectory() ? 0o700 : 0o600;
    if ((found.isDirectory() || found.isFile()) && (found.mode & MODE) !== wanted) chmodSync(path, wanted);
  }
}
