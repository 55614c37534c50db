import type { Column, ColumnRole } from '@pebble/contract';
import { guessDateForm } from './dates';

/** Words by which each role is known, most telling first; compared without case, spaces and marks. */
const NAMES: readonly (readonly [ColumnRole, readonly string[]])[] = [
  [
    'parentAuthor',
    [
      'inreplytohandle',
      'replytohandle',
      'inreplytouser',
      'replytouser',
      'inreplytoaccount',
      'inreplytoauthor',
      'parentauthor',
      'answeredaccount',
      'repostof',
      'originalauthor',
      'replytoname',
    ],
  ],
  [
    'parent',
    [
      'inreplyto',
      'inreplytoid',
      'replyto',
      'replytoid',
      'parent',
      'parentid',
      'answers',
      'repliedtoid',
      'referencedid',
      'originalid',
      'repostofid',
    ],
  ],
  ['id', ['id', 'messageid', 'postid', 'statusid', 'guid', 'uuid', 'key', 'commentid']],
  [
    'authorName',
    [
      'authorname',
      'displayname',
      'username',
      'fullname',
      'accountname',
      'name',
      'authordisplayname',
      'userdisplayname',
    ],
  ],
  [
    'author',
    [
      'author',
      'handle',
      'authorhandle',
      'userhandle',
      'account',
      'user',
      'from',
      'sender',
      'by',
      'screenname',
      'userid',
      'authorid',
      'acct',
      'accounthandle',
      'attributedto',
      'actor',
    ],
  ],
  [
    'text',
    [
      'text',
      'content',
      'body',
      'message',
      'post',
      'fulltext',
      'comment',
      'caption',
      'contents',
      'texte',
      'texto',
    ],
  ],
  [
    'time',
    [
      'time',
      'date',
      'createdat',
      'created',
      'timestamp',
      'published',
      'publishedat',
      'postedat',
      'datetime',
      'when',
      'sent',
      'createdtime',
      'fecha',
      'heure',
    ],
  ],
  ['kind', ['kind', 'type', 'messagetype', 'posttype']],
  ['link', ['link', 'url', 'permalink', 'posturl', 'address', 'href', 'uri']],
];

const squeeze = (name: string): string => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/**
 * What each column most likely is, by its name first and by its values where the name says nothing. Each role but
 * "number" and "attribute" is given once.
 * @param rows sample rows, each with one value for each name
 */
export function guessColumns(names: readonly string[], rows: readonly (readonly string[])[]): Column[] {
  const roles = new Array<ColumnRole | null>(names.length).fill(null);
  const keys = names.map(squeeze);
  const tails = names.map((name) => squeeze(name.split('.').at(-1)!));
  const give = (role: ColumnRole, find: (i: number) => boolean): void => {
    const i = roles.findIndex((taken, at) => taken === null && find(at));
    if (i >= 0 && !roles.includes(role)) roles[i] = role;
  };
  for (const [role, words] of NAMES) for (const word of words) give(role, (i) => keys[i] === word);
  // "author.handle" and the like: the last part of a dotted name says what it is.
  for (const [role, words] of NAMES) {
    for (const word of words) give(role, (i) => names[i].includes('.') && tails[i] === word);
  }
  const column = (i: number): string[] => rows.map((row) => row[i] ?? '').filter((value) => value !== '');
  if (!roles.includes('time'))
    give('time', (i) => guessDateForm(column(i)) !== null && !isSmallNumber(column(i)));
  if (!roles.includes('text'))
    give('text', (i) => meanLength(column(i)) > 30 && column(i).some((v) => v.includes(' ')));
  return names.map((name, i) => ({
    name,
    role: roles[i] ?? (isSmallNumber(column(i)) ? 'number' : 'attribute'),
  }));
}

/** The roles that a file of posts cannot do without, and are not there. */
export function missingRoles(columns: readonly Column[]): ColumnRole[] {
  const wanted: ColumnRole[] = ['author', 'text'];
  return wanted.filter((role) => !columns.some((column) => column.role === role));
}

function isSmallNumber(values: readonly string[]): boolean {
  return (
    values.length > 0 &&
    values.every((value) => /^-?\d{1,15}(?:\.\d+)?$/.test(value)) &&
    !looksLikeTime(values)
  );
}

function looksLikeTime(values: readonly string[]): boolean {
  const guess = guessDateForm(values);
  return guess !== null && guess.form.startsWith('unix');
}

function meanLength(values: readonly string[]): number {
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value.length, 0) / values.length;
}
