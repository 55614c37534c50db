import { csvRow } from '@pebble/core';
import type { DemoPost } from './sallowmere/posts';

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
