// npm run dev: the server, built anew and started again on each change, and the interface with reload at its own address.
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { join } from 'node:path';
import { checkNode, install, root, run } from './prepare.mjs';

/** Milliseconds without a further change after which the server is built anew. */
const QUIET = 150;

checkNode();
install();
// The builder of the interface takes its fonts from here, and the server its demo.
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);

const port = process.env.PORT ?? '4620';
const env = { ...process.env, PORT: port };
let server = null;
let timer;

function startServer() {
  server = spawn('node', ['apps/server/dist/main.js'], { cwd: root, stdio: 'inherit', env });
}

function restart() {
  if (run('node', ['scripts/build.mjs', '--no-web']) !== 0) return;
  server.once('exit', startServer);
  server.kill();
}

startServer();
for (const folder of [
  'packages/contract/src',
  'packages/core/src',
  'packages/standins/src',
  'apps/server/src',
])
  watch(join(root, folder), { recursive: true }, (_, name) => {
    if (!name?.endsWith('.ts') || name.endsWith('.spec.ts')) return;
    clearTimeout(timer);
    timer = setTimeout(restart, QUIET);
  });
const page = spawn('npx', ['ng', 'serve'], {
  cwd: join(root, 'apps/web'),
  stdio: 'inherit',
  env: { ...env, NG_CLI_ANALYTICS: 'false' },
});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    server.kill();
    page.kill();
    process.exit(0);
  });
