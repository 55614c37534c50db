// npm run demo -- --messages 1000000 --out FILE.jsonl: writes the made-up posts of Sallowmere, as many as wanted.
// Without arguments: the files in demo/, and a broken one of each kind.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { root } from './prepare.mjs';
import { makePosts, postsAsCsv, postsAsJsonLines, postsAsTsv } from '../packages/standins/dist/index.js';

const { values } = parseArgs({
  // The build calls this file too, with options of its own.
  strict: false,
  options: { messages: { type: 'string' }, out: { type: 'string' } },
});
if (values.out) {
  writeFileSync(values.out, postsAsJsonLines(makePosts(Number(values.messages ?? 9000)).posts));
} else {
  const folder = join(root, 'demo');
  mkdirSync(folder, { recursive: true });
  const { posts } = makePosts();
  const write = (name, text) => writeFileSync(join(folder, name), text);
  write('tidepost.jsonl', postsAsJsonLines(posts));
  write('tidepost.csv', postsAsCsv(posts));
  write('tidepost.tsv', postsAsTsv(posts));
  const few = posts.slice(0, 40);
  const damage = (text, line, mend) =>
    text
      .split('\n')
      .map((row, i) => (i === line ? mend(row) : row))
      .join('\n');
  write(
    'broken.jsonl',
    damage(postsAsJsonLines(few), 11, (row) => row.slice(0, row.length / 2)),
  );
  write(
    'broken.csv',
    damage(postsAsCsv(few).replaceAll('\r\n', '\n'), 11, () => '1,ann,"Ann, this mark is never closed'),
  );
  write(
    'broken.tsv',
    damage(postsAsTsv(few), 11, (row) => row.replace(/\d\d\/\d\d\/2026[^\t]*/, 'the day before yesterday')),
  );
}
