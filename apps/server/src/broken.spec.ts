import type { Network, ImportMapping } from '@pebble/contract';
import {
  brokenFiles,
  makeEmails,
  makePosts,
  makeSignInSheet,
  makeVideos,
  signInAsCsv,
} from '@pebble/standins';
import { startedApplication } from './testing/application';

const files = brokenFiles({
  posts: makePosts(60).posts,
  emails: makeEmails().emails,
  reelcove: makeVideos(),
  sheet: signInAsCsv(makeSignInSheet()),
});

/** Rows that are skipped and listed: the line, the field, the beginning of the reason. The rest of the file goes in. */
const LISTED: readonly (readonly [string, number, string | null, string])[] = [
  ['broken.jsonl', 12, null, 'Not valid JSON'],
  ['broken.json', 43, null, 'The file ends in the middle of its list'],
  ['broken.csv', 12, null, 'A quotation mark is opened and never closed'],
  ['broken.tsv', 12, 'Date', 'The date cannot be read: “the day before yesterday”'],
  ['broken-activities.json', 20, 'type', '“Like” is not a kind of message'],
  ['broken-comments.csv', 5, 'author', 'The row has no author'],
  ['followers of broken_lantern.csv', 5, 'handle', 'The row names no follower'],
  ['broken-account-details.csv', 3, 'joined', 'The date cannot be read: “the other year”'],
  ['broken-sign-in-sheet.csv', 2, 'First reading, 3 March', '“perhaps” is neither yes nor no'],
  ['broken.mbox', 1, 'From', 'The email has no sender'],
  ['broken-ties.csv', 2, 'weight', 'The weight “many” is no positive number'],
];

/** Files of which nothing can be taken: what is said, and on which line. */
const REFUSED: readonly (readonly [string, number | undefined, string])[] = [
  ['broken.eml', 1, 'No message was found. Line 1: The email has no sender.'],
  ['broken-matrix.csv', 3, 'is “a few”, which is no weight.'],
  ['broken.gml', 22, 'An edge names the node “999”, which is not in the file.'],
  ['broken-graph.json', undefined, 'Edge 1 has no source or no target.'],
  ['broken.gv', 21, '“--” stands in a digraph.'],
];

describe('the broken file of each format', () => {
  const app = startedApplication();

  it.each(LISTED)('%s goes in but for line %i, which is listed', async (name, row, field, reason) => {
    const { preview } = await app.look(name, files[name]);
    const problem = { row, field, reason: expect.stringMatching(`^${reason}`) as string };
    expect(preview.problems).toContainEqual(problem);
    const { id, result } = await app.take(name, files[name]);
    const { read, skipped } = result as { read: number; skipped: number };
    expect(read).toBeGreaterThan(skipped);
    const { text } = await app.api.get(`/api/v1/studies/${app.study}/skipped/${id}`).buffer(true);
    expect(text.split('\r\n').some((line) => line.startsWith(`${row},`))).toBe(true);
  });

  it.each(REFUSED)('%s is refused, with its line', async (name, row, reason) => {
    const { body } = await app.send(name, files[name]).expect(422);
    expect(body).toMatchObject({
      detail: expect.stringContaining(reason) as string,
      kept: 'The study is unchanged.',
    });
    expect((body as { row?: number }).row).toBe(row);
  });

  it('groups that do not fit the network change nothing', async () => {
    const name = 'broken-groups.csv';
    const { result } = await app.take('ties.csv', 'source,target\na,b\n');
    const { id, preview } = await app.look(name, files[name]);
    const { reading }: { reading: ImportMapping } = preview;
    const network = String(result?.['network']);
    const all = async () => ({
      network: await app.get<Network>(`networks/${network}`),
      networks: (await app.list<Network>('networks')).map((one) => [
        one.id,
        one.columns,
        one.nodes,
        one.edges,
      ]),
      sources: await app.list('sources'),
      map: await app.get(`networks/${network}/map`),
    });
    for (let i = 0; i < 400 && (await app.get<Network>(`networks/${network}`)).state !== 'measured'; i++)
      await new Promise((done) => setTimeout(done, 25));
    const before = await all();
    const { body } = await app
      .step('add-groups', { network, upload: id, file: name, column: 'office', reading })
      .expect(422);
    expect((body as { detail: string }).detail).toContain('2 nodes have no group (a, b)');
    expect(await all()).toEqual(before);
    expect(before.network.columns.map((one) => one.name)).not.toContain('office');
  });

  it('has been tried for every file that ships', () => {
    const tried = [...LISTED, ...REFUSED].map(([name]) => name);
    expect([...tried, 'broken-groups.csv'].sort()).toEqual(Object.keys(files).sort());
  });
});
