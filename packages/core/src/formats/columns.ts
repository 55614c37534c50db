import type { Column, ColumnRole, Material } from '@pebble/contract';
import { guessDateForm } from './dates';

/** Words by which each role is known, most telling first; compared without case, spaces and marks. */
const MESSAGE_NAMES: readonly (readonly [ColumnRole, readonly string[]])[] = [
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
  ['subject', ['subject', 'title', 'headline', 'objet', 'asunto', 'betreff']],
  ['to', ['to', 'recipient', 'recipients', 'receiver', 'receivers', 'mentions', 'mentioned']],
  ['language', ['lang', 'language', 'langue', 'idioma']],
  ['kind', ['kind', 'type', 'messagetype', 'posttype']],
  ['link', ['link', 'url', 'permalink', 'posturl', 'address', 'href', 'uri']],
];

/** Words for the two ends of a tie and its weight. */
const NETWORK_NAMES: readonly (readonly [ColumnRole, readonly string[]])[] = [
  [
    'source',
    [
      'source',
      'from',
      'sourceid',
      'sourcenode',
      'sender',
      'node1',
      'nodea',
      'ego',
      'follower',
      'origin',
      'start',
      'tail',
    ],
  ],
  [
    'target',
    [
      'target',
      'to',
      'targetid',
      'targetnode',
      'receiver',
      'node2',
      'nodeb',
      'alter',
      'followed',
      'destination',
      'end',
      'head',
    ],
  ],
  ['weight', ['weight', 'count', 'strength', 'value', 'messages', 'times', 'ties', 'frequency']],
  ['time', ['time', 'date', 'timestamp', 'when', 'createdat']],
];

const NAMES: Readonly<Record<Material, readonly (readonly [ColumnRole, readonly string[]])[]>> = {
  messages: MESSAGE_NAMES,
  network: NETWORK_NAMES,
};

const squeeze = (name: string): string => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/**
 * What each column most likely is, by its name first and by its values where the name says nothing. Each role but
 * "number" and "attribute" is given once.
 * @param rows sample rows, each with one value for each name
 */
export function guessColumns(
  names: readonly string[],
  rows: readonly (readonly string[])[],
  material: Material = 'messages',
): Column[] {
  const roles = new Array<ColumnRole | null>(names.length).fill(null);
  const keys = names.map(squeeze);
  const tails = names.map((name) => squeeze(name.split('.').at(-1)!));
  const give = (role: ColumnRole, find: (i: number) => boolean): void => {
    const i = roles.findIndex((taken, at) => taken === null && find(at));
    if (i >= 0 && !roles.includes(role)) roles[i] = role;
  };
  for (const [role, words] of NAMES[material]) for (const word of words) give(role, (i) => keys[i] === word);
  // "author.handle" and the like: the last part of a dotted name says what it is.
  for (const [role, words] of NAMES[material]) {
    for (const word of words) give(role, (i) => names[i].includes('.') && tails[i] === word);
  }
  const column = (i: number): string[] => rows.map((row) => row[i] ?? '').filter((value) => value !== '');
  if (material === 'network') return named(names, roles, column);
  if (!roles.includes('time'))
    give('time', (i) => guessDateForm(column(i)) !== null && !isSmallNumber(column(i)));
  if (!roles.includes('text'))
    give('text', (i) => meanLength(column(i)) > 30 && column(i).some((v) => v.includes(' ')));
  return named(names, roles, column);
}

/** Columns without a role are numbers when all their values are, attributes otherwise. */
function named(
  names: readonly string[],
  roles: readonly (ColumnRole | null)[],
  valuesOf: (i: number) => readonly string[],
): Column[] {
  return names.map((name, i) => ({
    name,
    role: roles[i] ?? (isSmallNumber(valuesOf(i)) ? 'number' : 'attribute'),
  }));
}

/** What a table seems to hold by the names of its columns: ties when it has two ends and no text. */
export function guessMaterial(names: readonly string[], rows: readonly (readonly string[])[]): Material {
  const ties = guessColumns(names, rows, 'network').map(({ role }) => role);
  const messages = guessColumns(names, rows, 'messages').map(({ role }) => role);
  return ties.includes('source') && ties.includes('target') && !messages.includes('text')
    ? 'network'
    : 'messages';
}

/** The roles that a table of a material cannot do without, and are not there. */
export function missingRoles(columns: readonly Column[], material: Material = 'messages'): ColumnRole[] {
  const wanted: ColumnRole[] = material === 'network' ? ['source', 'target'] : ['author', 'text'];
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
