// npm run screenshots: makes every picture of docs/screenshots from the demo, on the built application.
import { checkNode, install, run } from './prepare.mjs';

checkNode();
install();
if (run('node', ['scripts/build.mjs']) !== 0) process.exit(1);
const { bundle } = await import('./bundle.mjs');
await bundle({ entryPoints: ['e2e/screenshots/main.ts'], outfile: 'e2e/dist/screenshots.js' });
process.exit(run(process.execPath, ['e2e/dist/screenshots.js', ...process.argv.slice(2)], { minutes: 15 }));
