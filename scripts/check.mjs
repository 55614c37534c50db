// npm run check: types, faults, format and the import rule. Names what failed.
import { checkNode, install, run } from './prepare.mjs';

checkNode();
install();
const checks = [
  ['types of the contract', 'npx', ['tsc', '-p', 'packages/contract']],
  ['types of the core', 'npx', ['tsc', '-p', 'packages/core']],
  ['types of the stand-ins', 'npx', ['tsc', '-p', 'packages/standins']],
  ['types of the server', 'npx', ['tsc', '-p', 'apps/server']],
  ['types of the interface', 'npx', ['tsc', '-p', 'apps/web']],
  ['types of the page to share', 'npx', ['tsc', '-p', 'apps/page']],
  ['types of the browser tests', 'npx', ['tsc', '-p', 'e2e']],
  ['types of the benchmarks', 'npx', ['tsc', '-p', 'bench']],
  ['ESLint', 'npx', ['eslint', '--max-warnings', '0', '.']],
  ['Prettier', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['import rule', 'node', ['scripts/imports.mjs']],
  ['rule of controls', 'node', ['scripts/controls.mjs']],
  ['words of the guide', 'node', ['scripts/guide.mjs']],
  ['unused files, exports and packages', 'npx', ['knip', '--no-progress']],
];
const failed = checks.filter(([name, command, args]) => {
  process.stdout.write(`${name} ... `);
  const started = Date.now();
  const status = run(command, args);
  console.log(status === 0 ? `good (${((Date.now() - started) / 1000).toFixed(0)} s)` : 'FAILED');
  return status !== 0;
});
console.log(`checks: ${checks.length - failed.length} good, ${failed.length} failed`);
process.exit(failed.length > 0 ? 1 : 0);
