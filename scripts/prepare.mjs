// What every command needs first: a fitting Node.js and the installed packages.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Ends the program with a sentence unless Node.js is new enough. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  console.error(`Pebble Thread needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

/** Runs a program to its end, or for at most `minutes`; gives its exit code, which is 1 for one that was ended. */
export function run(command, args, { minutes, ...options } = {}) {
  const limit = minutes ? { timeout: minutes * 60_000, killSignal: 'SIGKILL' } : {};
  const stdio = ['ignore', 'inherit', 'inherit'];
  return spawnSync(command, args, { cwd: root, stdio, ...limit, ...options }).status ?? 1;
}

/** Installs the packages as the lock file names them, when they are not there or the lock file has changed. */
export function install() {
  const stamp = join(root, 'node_modules/.installed');
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages (some minutes the first time) ...');
  if (run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']) !== 0) {
    console.error(
      'The packages could not be installed. A C++ compiler, make and Python are needed for the database library.',
    );
    process.exit(1);
  }
  writeFileSync(stamp, lock);
}
