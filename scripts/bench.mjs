// npm run bench [-- --json FILE --posts N --only PART]: builds the benchmarks and prints their table.
import { checkNode, install, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
// Not before the packages are installed.
const { bundle } = await import('./bundle.mjs');
await bundle({
  entryPoints: {
    main: 'bench/src/main.ts',
    storeProcess: 'bench/src/storeProcess.ts',
    'runner/thread': 'apps/server/src/runner/thread.cjs',
    'runner/worker': 'apps/server/src/runner/worker.ts',
    'intake/thread': 'apps/server/src/intake/thread.ts',
    'measuring/pathsThread': 'apps/server/src/measuring/pathsThread.ts',
  },
  outdir: 'bench/dist',
});
process.exit(run(process.execPath, ['--expose-gc', 'bench/dist/main.js', ...process.argv.slice(2)]));
