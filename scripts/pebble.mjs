// npm run pebble -- COMMAND: works on studies without the interface; --help tells what there is.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { checkNode, install, root } from './prepare.mjs';

checkNode();
install();
// What is built is said beside the results, which may be read by a program.
const built = spawnSync(process.execPath, ['scripts/build.mjs', '--no-web'], {
  cwd: root,
  stdio: ['ignore', 2, 2],
});
if (built.status !== 0) process.exit(1);
const program = join(root, 'apps/command/dist/main.js');
const { status } = spawnSync(process.execPath, [program, ...process.argv.slice(2)], {
  stdio: 'inherit',
  // Files are named from where it was called.
  cwd: process.env.INIT_CWD ?? process.cwd(),
  env: { MALLOC_ARENA_MAX: '2', ...process.env },
});
process.exit(status ?? 1);
