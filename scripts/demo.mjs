// npm run demo -- --messages 1000000 --out FILE.jsonl: writes the made-up posts of Sallowmere, as many as wanted.
// Without arguments: the files in demo/, and a broken one of each kind.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { root } from './prepare.mjs';
import writeWorkbook from 'write-excel-file/node';
import { writeGraphml } from '../packages/core/dist/index.js';
import {
  asCsv,
  emailsAsMbox,
  makeEmails,
  makeFollowers,
  makePosts,
  makeSignInSheet,
  makeVideos,
  postsAsActivities,
  postsAsCsv,
  postsAsJsonLines,
  postsAsTsv,
  signInAsCsv,
  videosAsActivities,
} from '../packages/standins/dist/index.js';

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

  const { emails } = makeEmails();
  write('council.mbox', emailsAsMbox(emails));
  write('tidepost-activities.json', postsAsActivities(posts));
  const cells = (post) => [post.author, post.author_name, post.text, post.created_at, post.kind, post.likes];
  const head = ['author', 'author name', 'text', 'date', 'kind', 'likes'];
  const book = await writeWorkbook([
    {
      sheet: 'About',
      data: [['Posts of Tidepost about the lamps, March 2026'], ['All of it is made up.']].map(toCells),
    },
    { sheet: 'Posts', data: [head, ...posts.slice(0, 2000).map(cells)].map(toCells) },
  ]).toBuffer();
  write('tidepost.xlsx', book);
  const reelcove = makeVideos();
  write('reelcove-videos.csv', asCsv(reelcove.videos));
  write('reelcove-comments.csv', asCsv(reelcove.comments));
  write('reelcove-activities.jsonl', videosAsActivities(reelcove));
  const lists = makeFollowers();
  for (const { followed, followers } of lists) write(`followers of ${followed}.csv`, asCsv(followers));
  write(
    'account-details.csv',
    asCsv(
      lists[0].followers.slice(0, 400).map(({ handle, description, joined, posts: number }) => ({
        handle,
        bio: description,
        joined,
        posts: number,
      })),
    ),
  );
  const sheet = makeSignInSheet();
  write('sign-in-sheet.csv', signInAsCsv(sheet));
  write('broken-sign-in-sheet.csv', signInAsCsv(sheet).replace(',yes', ',perhaps'));
  const network = mailNetwork(emails);
  write(
    'mail-groups.csv',
    asCsv(network.nodes.handle.map((node) => ({ node, group: node.split('@')[1].split('.')[0] }))),
  );
  write('mail-network.graphml', writeGraphml(network.nodes, network.edges, network.nodes.handle.length));
  write(
    'mail-ties.csv',
    `source,target,weight\n${Array.from(network.edges.source, (a, e) => `${network.nodes.handle[a]},${network.nodes.handle[network.edges.target[e]]},${network.edges.weight[e]}\n`).join('')}`,
  );
  write(
    'broken.mbox',
    emailsAsMbox(emails.slice(0, 12))
      .replace(/^Date: .*$/m, 'Date: the other day')
      .replace(/^From: .*$/m, 'X-From: nobody'),
  );
  write(
    'broken-activities.json',
    postsAsActivities(few)
      .replace('"type": "Note"', '"type": "Tombstone"')
      .replace('"type": "Note"', '"type": "Like"'),
  );
  write(
    'broken.graphml',
    writeGraphml(network.nodes, network.edges, network.nodes.handle.length).replace('target="n', 'aim="n'),
  );
  write('broken.xlsx', book.subarray(0, book.length / 2));
}

function toCells(row) {
  return row.map((value) => ({ value, type: typeof value === 'number' ? Number : String }));
}

/** Who wrote to whom, as a finished network. */
function mailNetwork(emails) {
  const number = new Map();
  const node = (address) => number.get(address) ?? (number.set(address, number.size), number.size - 1);
  const weight = new Map();
  for (const { from, to, cc } of emails) {
    for (const receiver of [...to, ...cc]) {
      const pair = `${node(from.address)} ${node(receiver)}`;
      weight.set(pair, (weight.get(pair) ?? 0) + 1);
    }
  }
  const pairs = [...weight.keys()].map((pair) => pair.split(' ').map(Number));
  return {
    nodes: { handle: [...number.keys()] },
    edges: {
      source: Uint32Array.from(pairs, ([a]) => a),
      target: Uint32Array.from(pairs, ([, b]) => b),
      weight: Float64Array.from(weight.values()),
    },
  };
}
