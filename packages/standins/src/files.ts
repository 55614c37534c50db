import { csvRow } from '@pebble/core';
import type { DemoEmail } from './sallowmere/emails';
import type { DemoPost } from './sallowmere/posts';
import type { DemoVideos } from './sallowmere/reelcove';
import { MEETINGS } from './sallowmere/townspeople';

const NAMES: readonly (keyof DemoPost)[] = [
  'id',
  'author',
  'author_name',
  'text',
  'created_at',
  'kind',
  'in_reply_to',
  'in_reply_to_handle',
  'url',
  'likes',
  'followers',
  'lang',
];

/** Posts as JSON Lines, empty fields left out. */
export function postsAsJsonLines(posts: readonly DemoPost[]): string {
  return posts
    .map(
      (post) =>
        `${JSON.stringify(Object.fromEntries(Object.entries(post).filter(([, value]) => value !== '')))}\n`,
    )
    .join('');
}

/** Posts as CSV by RFC 4180. */
export function postsAsCsv(posts: readonly DemoPost[]): string {
  return csvRow(NAMES) + posts.map((post) => csvRow(NAMES.map((name) => post[name]))).join('');
}

/** Posts as tab-separated values with other names of columns and local dates, as a spreadsheet would save them. */
export function postsAsTsv(posts: readonly DemoPost[]): string {
  const clean = (cell: string | number): string => String(cell).replace(/[\t\r\n]+/g, ' ');
  const header = [
    'Post ID',
    'Handle',
    'Display name',
    'Content',
    'Date',
    'Type',
    'Reply to ID',
    'Reply to handle',
    'Permalink',
    'Likes',
  ];
  const rows = posts.map((post) => [
    post.id,
    post.author,
    post.author_name,
    post.text,
    localDate(post.created_at),
    post.kind,
    post.in_reply_to,
    post.in_reply_to_handle,
    post.url,
    post.likes,
  ]);
  return [header, ...rows].map((row) => `${row.map(clean).join('\t')}\n`).join('');
}

/** 31/03/2026 14:05:09 */
function localDate(iso: string): string {
  const [day, clock] = iso.replace('Z', '').split('T');
  const [y, m, d] = day.split('-');
  return `${d}/${m}/${y} ${clock}`;
}

/** Emails as a mailbox by RFC 4155: "From " lines before each, ">" before lines of a text that begin like one. */
export function emailsAsMbox(emails: readonly DemoEmail[]): string {
  return emails
    .map((email) => `From ${email.from.address} ${ctime(email.time)}\n${quoteFrom(emailText(email))}\n`)
    .join('');
}

/** One email by RFC 5322. */
export function emailText({ id, from, to, cc, time, subject, text, answers, toList }: DemoEmail): string {
  const quoted = answers
    ? `\n\nOn ${new Date(answers.time).toUTCString().slice(0, 16)}, ${answers.from.name} wrote:\n${answers.text.replace(/^/gm, '> ')}`
    : '';
  const references = chainOf(answers).map((one) => `<${one.id}>`);
  const head = [
    `From: ${from.name} <${from.address}>`,
    `To: ${to.join(', ')}`,
    ...(cc.length > 0 ? [`Cc: ${cc.join(', ')}`] : []),
    `Subject: ${subject}`,
    `Date: ${new Date(time).toUTCString().replace('GMT', '+0000')}`,
    `Message-ID: <${id}>`,
    ...(answers ? [`In-Reply-To: <${answers.id}>`, `References: ${references.join('\n ')}`] : []),
    ...(toList ? ['List-Id: Lamp talk <lamp-talk.lists.sallowmere.example>'] : []),
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: 8bit',
  ];
  return `${head.join('\n')}\n\n${text}${quoted}\n-- \n${from.name}\n`;
}

/** Posts as an OrderedCollection of ActivityStreams 2.0: notes, and announces for reposts. */
export function postsAsActivities(posts: readonly DemoPost[]): string {
  const actor = (handle: string): string => `https://tidepost.example/@${handle}`;
  const address = new Map(posts.map((post) => [post.id, post.url]));
  const escape = (text: string): string =>
    text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/\n/g, '<br>');
  const items = posts.map((post) => {
    const parent = post.in_reply_to ? (address.get(post.in_reply_to) ?? post.in_reply_to) : undefined;
    if (post.kind === 'repost')
      return {
        type: 'Announce',
        id: post.url,
        actor: actor(post.author),
        published: post.created_at,
        object: parent,
      };
    return {
      type: 'Note',
      id: post.url,
      attributedTo: actor(post.author),
      published: post.created_at,
      content: `<p>${escape(post.text)}</p>`,
      ...(parent ? { inReplyTo: parent } : {}),
      likes: { type: 'Collection', totalItems: post.likes },
      to: ['https://www.w3.org/ns/activitystreams#Public'],
    };
  });
  const collection = {
    '@context': 'https://www.w3.org/ns/activitystreams',
    type: 'OrderedCollection',
    totalItems: items.length,
    orderedItems: items,
  };
  return `${JSON.stringify(collection, null, 1)}\n`;
}

/** Objects with the same keys as a table by RFC 4180. */
export function asCsv<T extends object>(rows: readonly T[]): string {
  const names = Object.keys(rows[0]) as (keyof T & string)[];
  return (
    csvRow(names) + rows.map((row) => csvRow(names.map((name) => row[name] as string | number))).join('')
  );
}

/** Videos and their comments as objects of ActivityStreams 2.0, one a line. */
export function videosAsActivities({ videos, comments }: DemoVideos): string {
  const base = 'https://reelcove.example';
  const lines = [
    ...videos.map((video) => ({
      type: 'Video',
      id: `${base}/v/${video.video_id}`,
      name: video.title,
      attributedTo: { type: 'Group', id: `${base}/@${video.channel}`, name: video.channel_name },
      published: video.published_at,
      content: video.description,
      views: video.views,
      likes: { type: 'Collection', totalItems: video.likes },
    })),
    ...comments.map((comment) => ({
      type: 'Note',
      id: `${base}/c/${comment.comment_id}`,
      attributedTo: { type: 'Person', id: `${base}/@${comment.author}`, name: comment.author_name },
      published: comment.published_at,
      content: comment.text,
      inReplyTo: comment.parent_id ? `${base}/c/${comment.parent_id}` : `${base}/v/${comment.video_id}`,
      likes: { type: 'Collection', totalItems: comment.likes },
    })),
  ];
  return lines.map((line) => `${JSON.stringify(line)}\n`).join('');
}

/** The sign-in sheet as a spreadsheet would save it: people by meetings, yes and no, an empty cell where nobody wrote. */
export function signInAsCsv(sheet: readonly { person: string; there: readonly boolean[] }[]): string {
  const rows = sheet.map(({ person, there }, i) =>
    csvRow([
      person,
      ...there.map((was, k) => (was ? (i % 7 === 3 ? 'YES' : 'yes') : (i + k) % 5 === 0 ? '' : 'no')),
    ]),
  );
  return csvRow(['name', ...MEETINGS]) + rows.join('');
}

/** The email that is answered, the one before that, and so on, the oldest first. */
function chainOf(email: DemoEmail | null): DemoEmail[] {
  return email ? [...chainOf(email.answers), email] : [];
}

function quoteFrom(text: string): string {
  return text.replace(/^(>*From )/gm, '>$1');
}

/** Tue Mar 31 14:05:09 2026, as the C library writes it, in UTC. */
function ctime(time: number): string {
  const [weekday, day, month, year, clock] = new Date(time).toUTCString().replace(',', '').split(' ');
  return `${weekday} ${month} ${day} ${clock} ${year}`;
}
