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
  brokenFiles,
  emailsAsMbox,
  mailNetwork,
  makeEmails,
  makeFollowers,
  makePosts,
  makeSignInSheet,
  makeVideos,
  networkAsDot,
  networkAsGml,
  networkAsJsonGraph,
  networkAsList,
  networkAsMatrix,
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
  const network = mailNetwork(emails);
  const { nodes, ties } = network;
  write('mail-groups.csv', asCsv(nodes.map(({ id, office }) => ({ node: id, group: office }))));
  write('mail-ties.csv', asCsv(ties));
  write('mail-nodes.csv', asCsv(nodes));
  const table = (rows) => [Object.keys(rows[0]), ...rows.map(Object.values)].map(toCells);
  write(
    'mail-network.xlsx',
    await writeWorkbook([
      { sheet: 'Nodes', data: table(nodes) },
      { sheet: 'Ties', data: table(ties) },
    ]).toBuffer(),
  );
  write('mail-network.gml', networkAsGml(network));
  write('mail-network.json', networkAsJsonGraph(network));
  write('mail-network.gv', networkAsDot(network));
  write('mail-network.adj', networkAsList(network));
  write('mail-matrix.csv', networkAsMatrix(network));
  const graphml = asGraphml(network);
  write('mail-network.graphml', graphml);
  const broken = brokenFiles({ posts, emails, reelcove, sheet: signInAsCsv(sheet) });
  for (const [name, text] of Object.entries(broken)) write(name, text);
  write('broken.graphml', graphml.replace('target="n', 'aim="n'));
  write('broken.xlsx', book.subarray(0, book.length / 2));
}

function toCells(row) {
  return row.map((value) => ({ value, type: typeof value === 'number' ? Number : String }));
}

function asGraphml({ nodes, ties }) {
  const number = new Map(nodes.map(({ id }, i) => [id, i]));
  const edges = {
    source: Uint32Array.from(ties, ({ source }) => number.get(source)),
    target: Uint32Array.from(ties, ({ target }) => number.get(target)),
    weight: Float64Array.from(ties, ({ weight }) => weight),
  };
  return writeGraphml({ handle: nodes.map(({ id }) => id) }, edges, nodes.length);
}
