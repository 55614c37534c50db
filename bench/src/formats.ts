import { randomUUID } from 'node:crypto';
import { copyFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse as parseCsv } from 'csv-parse/sync';
import PostalMime from 'postal-mime';
import { read as readSheets } from '@e965/xlsx';
import { SaxesParser } from 'saxes';
import writeWorkbook from 'write-excel-file/node';
import { Random, writeGraphml } from '@pebble/core';
import { MboxCutter } from '@pebble/core/files';
import {
  emailsAsMbox,
  makeEmails,
  makePosts,
  postsAsActivities,
  postsAsCsv,
  postsAsJsonLines,
} from '@pebble/standins';
import { newStudyId } from '../../apps/server/src/storage/ids';
import { StudyFolders } from '../../apps/server/src/storage/studyFolders';
import { uploadPath } from '../../apps/server/src/files/places';
import { lookAt } from '../../apps/server/src/intake/inspectUpload';
import { Runner } from '../../apps/server/src/runner/runner';
import { atMost, time, type Row } from './measure';

const POSTS = 50_000;
const EMAILS = 10_000;
const TIES = 200_000;
const NODES = 20_000;

interface Case {
  readonly file: string;
  readonly work: string;
  /** A bare parse of the whole file by the library that reads it. */
  readonly parse: (path: string) => unknown;
  readonly library: string;
}

/** Taking files of each format in, everything included, beside a bare parse of the same file. */
export async function formats(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-bench-'));
  try {
    const cases = await writeFiles(folder);
    const rows: Row[] = [];
    for (const one of cases) {
      const path = join(folder, one.file);
      const parsing = await time(2, () => one.parse(path));
      const { elapsed, size } = await takeIn(folder, path, one.file);
      const rate = `${(size / 1024 ** 2 / (elapsed / 1000)).toFixed(1)} MB a second; reference: ${one.library}`;
      rows.push(atMost(`Taking in ${one.file}`, one.work, elapsed, parsing, 4, rate));
    }
    return rows;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Sends a file through the step that a researcher uses, in a data folder of its own. */
async function takeIn(
  folder: string,
  path: string,
  file: string,
): Promise<{ elapsed: number; size: number }> {
  const data = join(folder, `data-${file}`);
  const studies = await StudyFolders.open(data);
  const runner = new Runner(studies, join(import.meta.dirname, 'runner/thread.cjs'), {
    mostRows: 20_000_000,
    longestLook: 10_000,
  });
  const study = newStudyId();
  await runner.submit(study, { kind: 'create-study', parameters: { name: 'Bench' } });
  const upload = randomUUID();
  copyFileSync(path, uploadPath(studies.folderOf(study), upload));
  const { reading } = await lookAt(path, file);
  const kind = reading.material === 'network' ? 'import-network' : 'import-source';
  const started = performance.now();
  const { step } = await runner.submit(study, { kind, parameters: { upload, file, name: file, reading } });
  const elapsed = performance.now() - started;
  if (step.state !== 'done') throw new Error(`${file}: ${step.error}`);
  await runner.close();
  await studies.close();
  return { elapsed, size: statSync(path).size };
}

async function writeFiles(folder: string): Promise<Case[]> {
  const write = (name: string, content: string | Uint8Array): void =>
    writeFileSync(join(folder, name), content);
  const { posts } = makePosts(POSTS);
  write('posts.csv', postsAsCsv(posts));
  write('posts.jsonl', postsAsJsonLines(posts));
  write('activities.json', postsAsActivities(posts));
  write('mail.mbox', emailsAsMbox(makeEmails(EMAILS).emails));
  const cell = (value: string | number) => ({ value, type: typeof value === 'number' ? Number : String });
  const sheet = posts
    .slice(0, 20_000)
    .map((post) => [post.author, post.text, post.created_at, post.likes].map(cell));
  write(
    'posts.xlsx',
    await writeWorkbook([['author', 'text', 'date', 'likes'].map(cell), ...sheet]).toBuffer(),
  );
  const network = randomNetwork();
  write('network.graphml', writeGraphml(network.nodes, network.edges, NODES));
  const { source, target, weight } = network.edges;
  write(
    'ties.csv',
    `source,target,weight\n${Array.from(source, (a, e) => `n${a},n${target[e]},${weight[e]}\n`).join('')}`,
  );
  const text = (path: string): string => readFileSync(path, 'utf8');
  const label = (count: number, what: string): string => `${count.toLocaleString('en')} ${what}`;
  return [
    {
      file: 'posts.csv',
      work: label(POSTS, 'posts'),
      library: 'csv-parse',
      parse: (path) => parseCsv(text(path)),
    },
    {
      file: 'posts.jsonl',
      work: label(POSTS, 'posts'),
      library: 'JSON.parse',
      parse: (path) =>
        text(path)
          .trim()
          .split('\n')
          .map((line) => JSON.parse(line) as unknown),
    },
    {
      file: 'activities.json',
      work: label(POSTS, 'posts'),
      library: 'JSON.parse',
      parse: (path) => JSON.parse(text(path)) as unknown,
    },
    { file: 'mail.mbox', work: label(EMAILS, 'emails'), library: 'postal-mime', parse: parseMails },
    {
      file: 'posts.xlsx',
      work: label(20_000, 'rows'),
      library: 'xlsx',
      parse: (path) => readSheets(new Uint8Array(readFileSync(path)).buffer),
    },
    {
      file: 'ties.csv',
      work: label(TIES, 'ties'),
      library: 'csv-parse',
      parse: (path) => parseCsv(text(path)),
    },
    {
      file: 'network.graphml',
      work: label(TIES, 'ties'),
      library: 'saxes',
      parse: (path) => new SaxesParser().write(text(path)).close(),
    },
  ];
}

async function parseMails(path: string): Promise<void> {
  const mails: string[] = [];
  const cutter = new MboxCutter(({ bytes }) => mails.push(bytes));
  cutter.write(readFileSync(path, 'latin1'));
  cutter.end();
  for (const mail of mails) await PostalMime.parse(Buffer.from(mail, 'latin1'));
}

function randomNetwork() {
  const chance = new Random(1);
  const ends = (): Uint32Array => Uint32Array.from({ length: TIES }, () => chance.below(NODES));
  return {
    nodes: { handle: Array.from({ length: NODES }, (_, v) => `node ${v}`) },
    edges: {
      source: ends(),
      target: ends(),
      weight: Float64Array.from({ length: TIES }, () => 1 + chance.below(9)),
    },
  };
}
