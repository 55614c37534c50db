// npm run bench [-- --json FILE --posts N --only PART]: builds the benchmarks and prints their table.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { checkNode, install, root, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
const { build } = await import('esbuild');
await build({
  absWorkingDir: root,
  entryPoints: {
    main: 'bench/src/main.ts',
    storeProcess: 'bench/src/storeProcess.ts',
    'runner/thread': 'apps/server/src/runner/thread.cjs',
    'runner/worker': 'apps/server/src/runner/worker.ts',
    'intake/thread': 'apps/server/src/intake/thread.ts',
    'measuring/pathsThread': 'apps/server/src/measuring/pathsThread.ts',
  },
  outdir: 'bench/dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  loader: { '.cjs': 'copy' },
  target: 'node20.19',
  conditions: ['types'],
  logLevel: 'warning',
  plugins: [
    {
      name: 'outside',
      setup: ({ onResolve }) =>
        onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
          kind === 'entry-point' || path.startsWith('@pebble/') || path === 'tlds'
            ? undefined
            : { path, external: true },
        ),
    },
  ],
});
process.exit(
  spawnSync(process.execPath, ['--expose-gc', 'bench/dist/main.js', ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
  }).status ?? 1,
);
