// npm run safety [-- --short --only PART --rounds N --minutes M]: attacks the built application on its own machine, and prints what held.
import { spawnSync } from 'node:child_process';
import { checkNode, install, root, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
const { build } = await import('esbuild');
await build({
  absWorkingDir: root,
  entryPoints: ['e2e/safety/main.ts'],
  outfile: 'e2e/dist/safety.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
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
  spawnSync(process.execPath, ['e2e/dist/safety.js', ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
  }).status ?? 1,
);
