// npm run safety [-- --short --only PART --rounds N --minutes M]: attacks the built application on its own machine, and prints what held.
import { checkNode, install, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
// Not before the packages are installed.
const { bundle } = await import('./bundle.mjs');
await bundle({ entryPoints: ['e2e/safety/main.ts'], outfile: 'e2e/dist/safety.js' });
process.exit(run(process.execPath, ['e2e/dist/safety.js', ...process.argv.slice(2)]));
