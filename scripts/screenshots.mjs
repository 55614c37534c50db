// npm run screenshots: shows how the main views of the demo differ from docs/screenshots, and keeps those that do; -- NAME of one alone.
import { checkNode, install, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
const names = process.argv.slice(2);
const only = names.length > 0 ? ['-g', `(^| )(${names.join('|')}) looks`] : [];
const program = [
  'node_modules/@playwright/test/cli.js',
  'test',
  '--config',
  'e2e/screenshots/playwright.config.ts',
];
process.exit(run('node', [...program, '--update-snapshots=changed', ...only], { minutes: 20 }));
