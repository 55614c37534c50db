// npm run check: types, faults, format and the import rule. Names what failed.
import { spawn } from 'node:child_process';
import { cpus } from 'node:os';
import { checkNode, install, root } from './prepare.mjs';

checkNode();
install();
// The longest first.
const checks = [
  ['ESLint', 'npx', ['eslint', '--max-warnings', '0', '.']],
  ['types of the contract', 'npx', ['tsc', '-p', 'packages/contract']],
  ['types of the core', 'npx', ['tsc', '-p', 'packages/core']],
  ['types of the stand-ins', 'npx', ['tsc', '-p', 'packages/standins']],
  ['types of the server', 'npx', ['tsc', '-p', 'apps/server']],
  ['types of the command line', 'npx', ['tsc', '-p', 'apps/command']],
  ['types of the interface', 'npx', ['tsc', '-p', 'apps/web']],
  ['types of the page to share', 'npx', ['tsc', '-p', 'apps/page']],
  ['types of the browser tests', 'npx', ['tsc', '-p', 'e2e']],
  ['types of the benchmarks', 'npx', ['tsc', '-p', 'bench']],
  ['Prettier', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['import rule', 'node', ['scripts/imports.mjs']],
  ['rule of controls', 'node', ['scripts/controls.mjs']],
  ['words of the guide', 'node', ['scripts/guide.mjs']],
  ['unused files, exports and packages', 'npx', ['knip', '--no-progress']],
];
/** What a program printed, and whether all was well. */
const tried = ([name, command, args]) =>
  new Promise((resolve) => {
    const started = Date.now();
    let said = '';
    const program = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    for (const stream of [program.stdout, program.stderr]) stream.on('data', (text) => (said += text));
    program.on('error', (error) => resolve({ name, said: String(error), isGood: false, seconds: 0 }));
    program.on('close', (status) => {
      const seconds = (Date.now() - started) / 1000;
      resolve({ name, said, isGood: status === 0, seconds });
    });
  });
/** One after the other, each as soon as a core is free; what each printed stands together. */
const waiting = [...checks];
const failed = [];
const work = async () => {
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    const { name, said, isGood, seconds } = await tried(next);
    console.log(`${name} ... ${isGood ? `good (${seconds.toFixed(0)} s)` : `FAILED\n${said}`}`);
    if (!isGood) failed.push(name);
  }
};
await Promise.all(Array.from({ length: Math.min(3, cpus().length) }, work));
console.log(`checks: ${checks.length - failed.length} good, ${failed.length} failed`);
process.exit(failed.length > 0 ? 1 : 0);
