import {
  asCsv,
  emailsAsMbox,
  emailText,
  postsAsActivities,
  postsAsCsv,
  postsAsJsonLines,
  postsAsTsv,
} from '../files';
import type { DemoEmail } from './emails';
import { mailNetwork, networkAsDot, networkAsGml, networkAsJsonGraph, networkAsMatrix } from './mailNetwork';
import type { DemoPost } from './posts';
import type { makeVideos } from './reelcove';
import { makeFollowers } from './townspeople';

/** What the damaged files are made from. */
export interface Unbroken {
  readonly posts: readonly DemoPost[];
  readonly emails: readonly DemoEmail[];
  readonly reelcove: ReturnType<typeof makeVideos>;
  /** The sign-in sheet as comma-separated values. */
  readonly sheet: string;
}

/** One damaged file of each format, by its name: each shows what is said of a common fault. */
export function brokenFiles({ posts, emails, reelcove, sheet }: Unbroken): Readonly<Record<string, string>> {
  const few = posts.slice(0, 40);
  const mails = emails.slice(0, 12);
  const network = mailNetwork(mails);
  const followers = makeFollowers()[0].followers.slice(0, 30);
  const comments = reelcove.comments.slice(0, 30);
  return {
    'broken.jsonl': onLine(12, postsAsJsonLines(few), (row) => row.slice(0, row.length / 2)),
    'broken.json': `[\n${few.map((post) => JSON.stringify(post)).join(',\n')},\n{"id": \n`,
    'broken.csv': onLine(
      12,
      postsAsCsv(few).replaceAll('\r\n', '\n'),
      () => '1,ann,"Ann, this mark is never closed',
    ),
    'broken.tsv': onLine(12, postsAsTsv(few), (row) =>
      row.replace(/\d\d\/\d\d\/2026[^\t]*/, 'the day before yesterday'),
    ),
    'broken-activities.json': postsAsActivities(few)
      .replace('"type": "Note"', '"type": "Tombstone"')
      .replace('"type": "Note"', '"type": "Like"'),
    'broken-comments.csv': onLine(5, asCsv(comments), (row) => row.replace(/^([^,]*,[^,]*,)[^,]*/, '$1')),
    'followers of broken_lantern.csv': onLine(5, asCsv(followers), (row) => row.replace(/^[^,]*/, '')),
    'broken-account-details.csv':
      'handle,bio,joined\nlane_benji,Walks home at night,2020-01-01\nsalt_loft62,Salt,the other year\n,Nobody,2020-01-01\n',
    'broken-sign-in-sheet.csv': sheet.replace(',yes', ',perhaps'),
    'broken-groups.csv': 'node,group\nnobody@nowhere.example,residents\n',
    'broken.mbox': emailsAsMbox(mails)
      .replace(/^Date: .*$/m, 'Date: the other day')
      .replace(/^From: .*$/m, 'X-From: nobody'),
    'broken.eml': emailText(mails[0]).replace(/^From: .*$/m, 'X-From: nobody'),
    'broken-ties.csv': asCsv(network.ties).replace(/,\d+\r?\n/, ',many\r\n'),
    'broken-matrix.csv': onLine(3, networkAsMatrix(network), (row) => row.replace(/,0/, ',a few')),
    'broken.gml': networkAsGml(network).replace(/target \d+/, 'target 999'),
    'broken-graph.json': networkAsJsonGraph(network).replace('"target"', '"aim"'),
    'broken.gv': networkAsDot(network).replace(' -> ', ' -- '),
  };
}

/** Changes one line; the first is 1. */
function onLine(line: number, text: string, change: (row: string) => string): string {
  return text
    .split('\n')
    .map((row, i) => (i === line - 1 ? change(row) : row))
    .join('\n');
}
