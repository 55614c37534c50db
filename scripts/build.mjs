// Builds what is stale: the packages and the server with esbuild, the interface with Angular's own builder.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { root } from './prepare.mjs';

/** A hash of the names and contents of all files below these folders. */
function fingerprint(folders) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (!['node_modules', 'dist', '.angular', 'fonts'].includes(name)) visit(join(path, name));
    } else if (!path.endsWith('.spec.ts')) {
      hash.update(path.slice(root.length)).update(readFileSync(path));
    }
  };
  for (const folder of folders) visit(join(root, folder));
  return hash.digest('hex');
}

async function buildWhenStale(name, folders, output, build) {
  const stamp = join(root, output, '.build-stamp');
  const now = fingerprint([...folders, 'package.json', 'scripts/build.mjs']);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  const started = Date.now();
  console.log(`Building ${name} ...`);
  await build();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, now);
  console.log(`  done in ${((Date.now() - started) / 1000).toFixed(1)} s`);
}

/** @param builtIn packages that are built in, beside those of the workspace */
async function bundle(entryPoints, outdir, builtIn = []) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir,
    bundle: true,
    platform: 'neutral',
    mainFields: ['module', 'main'],
    conditions: ['types'],
    format: 'esm',
    loader: { '.cjs': 'copy' },
    target: 'node20.19',
    sourcemap: true,
    logLevel: 'warning',
    plugins: [
      {
        // Workspace packages are built in; everything else, and Node's own modules, stay imports.
        name: 'outside',
        setup({ onResolve }) {
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) => {
            if (kind === 'entry-point' || path.startsWith('@pebble/') || path === 'tlds') return undefined;
            return builtIn.includes(path)
              ? { path: fileURLToPath(import.meta.resolve(path)) }
              : { path, external: true };
          });
        },
      },
    ],
  });
}

/** Turns the sources of a package into JavaScript, file by file: the interface takes those files alone that a screen needs. */
async function translate(folder) {
  const { build } = await import('esbuild');
  const entryPoints = readdirSync(join(root, folder, 'src'), { recursive: true })
    .filter((entry) => entry.endsWith('.ts') && !/\.spec\.ts$|(^|\/)testing\//.test(entry))
    .map((entry) => `${folder}/src/${entry}`);
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir: `${folder}/dist/modules`,
    outbase: `${folder}/src`,
    format: 'esm',
    target: 'es2022',
    sourcemap: true,
    logLevel: 'warning',
  });
}

/** The fonts come with their packages; the builder takes assets only from its own folder. */
function copyFonts() {
  const target = join(root, 'apps/web/public/fonts');
  mkdirSync(target, { recursive: true });
  for (const [name, file] of [
    ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-wght-normal.woff2'],
    ['newsreader', 'newsreader-latin-wght-normal.woff2'],
  ]) {
    const from = join(root, 'node_modules/@fontsource-variable', name);
    copyFileSync(join(from, 'files', file), join(target, file));
    copyFileSync(join(from, 'LICENSE'), join(target, `${name}-LICENSE.txt`));
  }
  copyFurtherFonts(target);
  copyLetters(target);
}

/** Programs and styles are packed once, as small as can be, and not anew for everyone who asks. */
async function pack(folder) {
  const files = readdirSync(join(root, folder), { recursive: true })
    .filter((entry) => /\.(?:js|css|svg)$/.test(entry))
    .map((entry) => join(root, folder, entry))
    .filter((file) => statSync(file).size > 1000);
  await Promise.all(
    files.map(async (file) => {
      const params = { [constants.BROTLI_PARAM_SIZE_HINT]: statSync(file).size };
      writeFileSync(`${file}.br`, await promisify(brotliCompress)(readFileSync(file), { params }));
    }),
  );
}

/** Fonts of which figures take the shapes of their letters: each weight a file of its own, beside those for other scripts. */
function copyLetters(target) {
  const rules = [];
  for (const name of ['atkinson-hyperlegible-next', 'newsreader'])
    for (const weight of [400, 600]) {
      const from = join(root, 'node_modules/@fontsource', name);
      for (const file of readdirSync(join(from, 'files')))
        // WOFF beside it: letters are embedded in a PDF from it.
        if (new RegExp(`-${weight}-normal\\.woff2?$`).test(file))
          copyFileSync(join(from, 'files', file), join(target, file));
      rules.push(readFileSync(join(from, `${weight}.css`), 'utf8').replaceAll('url(./files/', 'url(/fonts/'));
    }
  rules.push(readFileSync(join(target, 'further.css'), 'utf8'));
  writeFileSync(join(target, 'letters.css'), rules.join('\n'));
}

/** Fonts for what the two typefaces lack: other scripts and emoji. Each file is for some characters, and is read when one of them is shown. */
function copyFurtherFonts(target) {
  const rules = [];
  for (const name of ['noto-sans', 'noto-sans-arabic', 'noto-sans-hebrew', 'noto-sans-sc', 'noto-emoji']) {
    const from = join(root, 'node_modules/@fontsource', name);
    for (const file of readdirSync(join(from, 'files')))
      if (/-400-normal\.woff2?$/.test(file)) copyFileSync(join(from, 'files', file), join(target, file));
    copyFileSync(join(from, 'LICENSE'), join(target, `${name}-LICENSE.txt`));
    rules.push(
      readFileSync(join(from, '400.css'), 'utf8')
        .replace(
          /url\(\.\/files\/([^)]*\.woff2)\) format\('woff2'\), url\([^)]*\) format\('woff'\)/g,
          "url('/fonts/$1') format('woff2')",
        )
        .replace(/\/\*.*?\*\//g, ''),
    );
  }
  writeFileSync(join(target, 'further.css'), rules.join('\n'));
}

const packages = ['packages/contract', 'packages/core', 'packages/standins'];
await buildWhenStale('the packages', packages, 'packages/standins/dist', async () => {
  for (const folder of packages) {
    const entries = ['index', 'files', 'letters', 'pdf', 'documents', 'first'].map(
      (name) => `${folder}/src/${name}.ts`,
    );
    await bundle(
      entries.filter(
        (entry) => existsSync(join(root, entry)) && !entry.startsWith('packages/standins/src/files.ts'),
      ),
      `${folder}/dist`,
    );
    if (folder !== 'packages/standins') await translate(folder);
  }
});
await buildWhenStale('the page to share', [...packages, 'apps/page'], 'apps/page/dist', async () => {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: { page: 'apps/page/src/main.tsx', style: 'apps/page/src/page.css' },
    outdir: 'apps/page/dist',
    bundle: true,
    minify: true,
    platform: 'browser',
    conditions: ['browser'],
    format: 'iife',
    target: 'es2022',
    jsx: 'automatic',
    jsxImportSource: 'preact',
    legalComments: 'none',
    logLevel: 'warning',
  });
});
await buildWhenStale('the server', [...packages, 'apps/server'], 'apps/server/dist', () =>
  bundle(
    ['main.ts', 'runner/thread.cjs', 'runner/worker.ts', 'intake/thread.ts', 'measuring/pathsThread.ts'].map(
      (name) => `apps/server/src/${name}`,
    ),
    'apps/server/dist',
    // Of many small files, which every thread would read when it starts.
    ['kysely', 'zod'],
  ),
);
await buildWhenStale(
  'the command line',
  [...packages, 'apps/server', 'apps/command'],
  'apps/command/dist',
  () => bundle(['apps/command/src/main.ts'], 'apps/command/dist', ['kysely', 'zod']),
);
await buildWhenStale('the demo files', packages, 'demo', async () => {
  await import('./demo.mjs');
});
if (!process.argv.includes('--no-web')) {
  await buildWhenStale(
    'the interface',
    ['packages/contract', 'packages/core', 'apps/web'],
    'apps/web/dist',
    () => {
      copyFonts();
      const done = spawnSync('npx', ['ng', 'build'], {
        cwd: join(root, 'apps/web'),
        stdio: ['ignore', 'inherit', 'inherit'],
        env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
      });
      if (done.status !== 0) throw new Error('The interface could not be built.');
      return pack('apps/web/dist/browser');
    },
  );
}
