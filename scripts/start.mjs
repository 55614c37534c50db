// npm start: checks Node.js, installs and builds what is missing, and starts the application.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { checkNode, install, root, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  // Each thread would keep memory of its own that it has given back (glibc).
  env: { MALLOC_ARENA_MAX: '2', ...process.env },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
