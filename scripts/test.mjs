// npm test: installs what is missing, checks, builds, and runs all tests. The last line is the total.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkNode, install, run } from './prepare.mjs';

const BROWSER = '/usr/bin/chromium';
/** A second engine, in which only numbers are compared. */
const SECOND = '/usr/bin/firefox-esr';

checkNode();
install();
const missing = [
  [BROWSER, 'chromium'],
  [SECOND, 'firefox-esr'],
].filter(([path]) => !existsSync(path));
if (missing.length > 0) {
  console.log('Installing browsers from the packages of Debian ...');
  run('apt-get', ['update', '-qq']);
  for (const [, name] of missing)
    run('apt-get', ['install', '-y', '-qq', name], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
}

let passed = 0;
let failed = 0;
const note = (name, ok) => {
  if (ok) passed++;
  else {
    failed++;
    console.error(`FAILED: ${name}`);
  }
};
/** Reads the numbers of a report that a test runner wrote; a runner that wrote none has failed. */
const count = (name, file, numbers) => {
  if (!existsSync(file)) return note(name, false);
  const { good, bad } = numbers(JSON.parse(readFileSync(file, 'utf8')));
  passed += good;
  failed += bad;
  rmSync(file);
};

note('npm run check', run('node', ['scripts/check.mjs']) === 0);
note('build', run('node', ['scripts/build.mjs']) === 0);

const jestReport = join(tmpdir(), `pebble-jest-${process.pid}.json`);
// What a failed test leaves open must not keep the rest from being told.
run(
  'node',
  ['node_modules/jest/bin/jest.js', '--ci', '--forceExit', '--json', `--outputFile=${jestReport}`],
  { minutes: 45 },
);
count('Jest', jestReport, (r) => ({
  good: r.numPassedTests,
  bad: r.numFailedTests + r.numRuntimeErrorTestSuites,
}));

const browserReport = join(tmpdir(), `pebble-playwright-${process.pid}.json`);
const serverLog = join(tmpdir(), `pebble-server-${process.pid}.log`);
run('node', ['node_modules/@playwright/test/cli.js', 'test', '--config', 'e2e/playwright.config.ts'], {
  minutes: 20,
  env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport, E2E_SERVER_LOG: serverLog },
});
count('Playwright', browserReport, ({ stats }) => ({
  good: stats.expected + stats.flaky,
  bad: stats.unexpected,
}));

note('npm run safety -- --short', run('node', ['scripts/safety.mjs', '--short'], { minutes: 15 }) === 0);

if (existsSync(serverLog)) {
  const said = readFileSync(serverLog, 'utf8').trim();
  if (failed > 0 && said)
    console.error(`What the server said during the browser tests:\n${said.slice(-3000)}`);
  rmSync(serverLog);
}
console.log(`tests: ${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
