// npm test: installs what is missing, checks, builds, and runs all tests. The last line is the total.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { checkNode, install, run } from './prepare.mjs';

const BROWSER = '/usr/bin/chromium';
/** A second engine, in which only numbers are compared. */
const SECOND = '/usr/bin/firefox-esr';

/** Of Jest and of browsers: as many as there are cores, and no more than four. */
const WORKERS = Math.min(4, cpus().length);

checkNode();
install();
const missing = [
  [BROWSER, 'chromium'],
  [SECOND, 'firefox-esr'],
  // An independent renderer of PDF, and what checks its form.
  ['/usr/bin/pdftoppm', 'poppler-utils'],
  ['/usr/bin/qpdf', 'qpdf'],
].filter(([path]) => !existsSync(path));
if (missing.length > 0) {
  console.log('Installing browsers and what reads PDF from the packages of Debian ...');
  run('apt-get', ['update', '-qq']);
  for (const [, name] of missing)
    run('apt-get', ['install', '-y', '-qq', name], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
}

/** How long each part took, told at the end. */
const parts = [];
let begun = performance.now();
const took = (part) => {
  parts.push(`${part} ${((performance.now() - begun) / 60_000).toFixed(1)}`);
  begun = performance.now();
};

let passed = 0;
let failed = 0;
/** What failed, by name: told once more before the total, since an output of many pages is read from its end. */
const names = [];
const note = (name, ok) => {
  if (ok) passed++;
  else {
    failed++;
    names.push(name);
  }
};
note('npm run check', run('node', ['scripts/check.mjs']) === 0);
took('checks');
note('build', run('node', ['scripts/build.mjs']) === 0);
took('build');

/** Runs Jest, and gives its report; null where it wrote none. What a failed test leaves open must not keep the rest from being told. */
const jest = (...args) => {
  const file = join(tmpdir(), `pebble-jest-${process.pid}.json`);
  const program = [
    'node_modules/jest/bin/jest.js',
    '--ci',
    '--forceExit',
    `--maxWorkers=${WORKERS}`,
    '--json',
    `--outputFile=${file}`,
  ];
  run('node', [...program, ...args], { minutes: 45 });
  if (!existsSync(file)) return null;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  rmSync(file);
  return report;
};
/** The names of tests that failed, and of files that could not be run at all. */
const failuresOf = ({ testResults }) =>
  testResults.flatMap(({ name, status, assertionResults }) => {
    const tests = assertionResults.filter((one) => one.status === 'failed');
    if (status === 'failed' && tests.length === 0) return [name];
    return tests.map(({ fullName }) => `${relative(process.cwd(), name)}: ${fullName}`);
  });
const report = jest();
if (!report) note('Jest', false);
else {
  passed += report.numPassedTests;
  const files = report.testResults.filter(({ status }) => status === 'failed').map(({ name }) => name);
  let bad = report.numFailedTests + report.numRuntimeErrorTestSuites;
  let last = report;
  // A machine that stands still for a minute is no fault of the code: what fails twice is. It is said either way.
  if (files.length > 0 && files.length <= 3) {
    console.error(`Once more, alone: ${files.join(', ')}`);
    const again = jest('--runTestsByPath', ...files);
    const left = again ? again.numFailedTests + again.numRuntimeErrorTestSuites : bad;
    last = again ?? report;
    console.error(`UNSTEADY: ${bad} failed at first, ${left} of them again.`);
    passed += Math.max(0, bad - left);
    bad = left;
  }
  failed += bad;
  names.push(...failuresOf(last));
}
took('Jest');

const serverLog = join(tmpdir(), `pebble-server-${process.pid}.log`);
/** The names of browser tests that ended in some way, in files and groups of any depth. */
const browserTests = (suites = [], status) =>
  suites.flatMap(({ file, specs = [], suites: within }) => [
    ...specs
      .filter(({ tests }) => tests.some((test) => test.status === status))
      .map(({ title }) => `${file}: ${title}`),
    ...browserTests(within, status),
  ]);
/** Runs what a configuration of Playwright names, and counts it. */
const playwright = (config, ...more) => {
  const file = join(tmpdir(), `pebble-playwright-${process.pid}.json`);
  run('node', ['node_modules/@playwright/test/cli.js', 'test', '--config', config, ...more], {
    // Half of that on a quick machine.
    minutes: 45,
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: file, E2E_SERVER_LOG: serverLog },
  });
  if (!existsSync(file)) return note(`Playwright, ${config}`, false);
  const { stats, suites } = JSON.parse(readFileSync(file, 'utf8'));
  names.push(...browserTests(suites, 'unexpected'));
  // As with Jest: what fails twice is a fault, and what failed once is said.
  for (const name of browserTests(suites, 'flaky'))
    console.error(`UNSTEADY: ${name} failed at first, and not again.`);
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  rmSync(file);
};
playwright('e2e/playwright.config.ts', '--retries=1', `--workers=${Math.min(2, WORKERS)}`);
took('browser tests');
playwright('e2e/screenshots/playwright.config.ts');
took('pictures');

note('npm run safety -- --short', run('node', ['scripts/safety.mjs', '--short'], { minutes: 15 }) === 0);
took('safety');

if (existsSync(serverLog)) {
  const said = readFileSync(serverLog, 'utf8').trim();
  if (failed > 0 && said)
    console.error(`What the server said during the browser tests:\n${said.slice(-3000)}`);
  rmSync(serverLog);
}
console.log(`Minutes: ${parts.join(', ')}.`);
for (const name of names) console.error(`FAILED: ${name}`);
console.log(`tests: ${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
