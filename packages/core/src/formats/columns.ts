import { areWrittenBack } from '../network/typedColumn';
import { NEEDED_ROLES, type Column, type ColumnRole, type Material } from '@pebble/contract';
import { guessDateForm } from './dates';
import { cellWeight } from './networks/twoMode';

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
  ['item', ['itemid', 'videoid', 'pageid', 'mediaid', 'item', 'video', 'page']],
  ['itemTitle', ['itemtitle', 'videotitle', 'pagetitle', 'mediatitle']],
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

type Names = readonly (readonly [ColumnRole, readonly string[]])[];

const ITEM_NAMES: Names = [
  ['id', ['id', 'videoid', 'itemid', 'pageid', 'mediaid', 'key', 'guid']],
  ['subject', ['title', 'videotitle', 'itemtitle', 'pagetitle', 'headline', 'name', 'subject']],
  ['author', ['channelid', 'channel', 'channelhandle', 'page', 'account', 'author', 'publisher', 'handle']],
  ['authorName', ['channeltitle', 'channelname', 'pagename', 'authorname', 'publishername']],
  ['text', ['description', 'text', 'summary', 'abstract']],
  ['time', ['publishedat', 'published', 'date', 'time', 'createdat', 'uploadedat', 'uploaddate']],
  ['link', ['url', 'link', 'permalink', 'href']],
  ['language', ['lang', 'language']],
];

const PROFILE_NAMES: Names = [
  ['authorName', ['name', 'displayname', 'fullname', 'authorname', 'accountname', 'followername']],
  ['followers', ['followers', 'followercount', 'followerscount', 'numberoffollowers', 'subscribers']],
  ['following', ['following', 'followingcount', 'followscount', 'friends', 'friendscount']],
  ['posts', ['posts', 'postcount', 'postscount', 'messages', 'statuses', 'statusescount', 'numberofposts']],
  ['location', ['location', 'place', 'town', 'city', 'country', 'region']],
  ['description', ['description', 'bio', 'about', 'summary', 'note', 'profile']],
  [
    'joined',
    ['joined', 'joinedat', 'createdat', 'created', 'dateofjoining', 'since', 'registered', 'published'],
  ],
];
const ACCOUNT_WORDS = [
  'handle',
  'account',
  'acct',
  'user',
  'username',
  'screenname',
  'id',
  'accountid',
  'userid',
];

const FOLLOW_NAMES: Names = [
  ['followed', ['followed', 'followedhandle', 'followedaccount', 'follows', 'target', 'targethandle']],
  ['follower', ['follower', 'followerhandle', 'followeraccount', 'followerid', 'source', ...ACCOUNT_WORDS]],
  ...PROFILE_NAMES,
];

const ACCOUNT_NAMES: Names = [
  ['author', ACCOUNT_WORDS],
  ...PROFILE_NAMES,
  ['link', ['url', 'link', 'homepage', 'website']],
];

const TWO_MODE_NAMES: Names = [
  ['source', ['source', 'person', 'people', 'name', 'account', 'handle', 'member', 'author', 'who']],
  [
    'target',
    ['target', 'event', 'events', 'thing', 'things', 'group', 'hashtag', 'hashtags', 'tags', 'topic'],
  ],
  ['weight', ['weight', 'count', 'times', 'value']],
];

const NODE_NAMES: Names = [
  ['node', ['id', 'node', 'nodeid', 'key', 'handle', 'name', 'label', 'account', 'person']],
  ['authorName', ['label', 'name', 'title', 'displayname', 'fullname']],
];

const GROUP_NAMES: Names = [
  ['group', ['group', 'category', 'community', 'cluster', 'class', 'faction', 'side', 'label']],
  ['node', ['node', 'name', 'handle', 'account', 'id', 'label', 'person']],
];

const NAMES: Readonly<Record<Material, Names>> = {
  messages: MESSAGE_NAMES,
  items: ITEM_NAMES,
  follows: FOLLOW_NAMES,
  accounts: ACCOUNT_NAMES,
  network: NETWORK_NAMES,
  nodes: NODE_NAMES,
  'two-mode': TWO_MODE_NAMES,
  groups: GROUP_NAMES,
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
  switch (material) {
    case 'messages':
      if (!roles.includes('time'))
        give('time', (i) => guessDateForm(column(i)) !== null && !isSmallNumber(column(i)));
      if (!roles.includes('text'))
        give('text', (i) => meanLength(column(i)) > 30 && column(i).some((v) => v.includes(' ')));
      break;
    case 'two-mode':
      return twoModeColumns(names, roles, rows);
    case 'groups':
      if (!roles.includes('group')) roles[names.length - 1] = 'group';
      if (!roles.includes('node')) give('node', () => true);
      return names.map((name, i) => ({ name, role: roles[i] ?? 'leave out' }));
    default:
  }
  return named(names, roles, column);
}

/** In a matrix every column but the first is a thing; else two columns are the ends. */
function twoModeColumns(
  names: readonly string[],
  roles: (ColumnRole | null)[],
  rows: readonly (readonly string[])[],
): Column[] {
  if (isAttendance(names, rows))
    return names.map((name, i) => ({ name, role: i === 0 ? 'source' : 'thing' }));
  for (const role of ['source', 'target'] as const) {
    const free = roles.findIndex((taken) => taken === null);
    if (!roles.includes(role) && free >= 0) roles[free] = role;
  }
  return names.map((name, i) => ({ name, role: roles[i] ?? 'leave out' }));
}

/**
 * Whether a table is a matrix of yes and no: beside the first column the cells are such words, 0, 1 or empty, but for a few that were
 * written wrongly.
 */
export function isAttendance(names: readonly string[], rows: readonly (readonly string[])[]): boolean {
  const cells = rows.flatMap((row) => row.slice(1)).filter((cell) => cell.trim() !== '');
  return names.length > 2 && cells.length > 0 && cells.filter(isYesOrNo).length >= cells.length * 0.95;
}

function isYesOrNo(cell: string): boolean {
  const weight = cellWeight(cell);
  return weight === 0 || weight === 1;
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

/** What a table seems to hold by the names of its columns, its cells, and what its file is called. */
export function guessMaterial(
  names: readonly string[],
  rows: readonly (readonly string[])[],
  file = '',
): Material {
  const has = (material: Material, ...wanted: ColumnRole[]): boolean => {
    const roles = guessColumns(names, rows, material).map(({ role }) => role);
    return wanted.every((role) => roles.includes(role));
  };
  const keys = names.map(squeeze);
  const isNamed = (...words: string[]): boolean => keys.some((key) => words.includes(key));
  if (has('messages', 'author', 'text') && !isNamed(...BIOGRAPHY)) return 'messages';
  if (isNamed('follower', 'followerhandle', 'followerid')) return 'follows';
  const isOfAccounts = PROFILE_NAMES.slice(1).some(([role]) => has('accounts', role, 'author'));
  if (isOfAccounts && /follower/i.test(file)) return 'follows';
  if (has('items', 'id', 'subject') && isNamed(...ITEM_MARKS)) return 'items';
  if (has('network', 'source', 'target') && !has('messages', 'text')) return 'network';
  if (names.length === 2 && has('groups', 'group') && isNamed(...GROUP_NAMES[0][1])) return 'groups';
  if (has('nodes', 'node') && (isNamed('nodeid', 'node') || NODES_FILE.test(file))) return 'nodes';
  if (isAttendance(names, rows)) return 'two-mode';
  if (isOfAccounts) return 'accounts';
  if (names.length === 2 && !has('messages', 'text')) return 'two-mode';
  return 'messages';
}

/** Names of files and sheets that hold nodes. */
const NODES_FILE = /(?<!\p{L})nodes?(?!\p{L})/iu;
/** Columns that only a table of accounts has, so that its long texts are no messages. */
const BIOGRAPHY = ['bio', 'joined', 'dateofjoining'];
const ITEM_MARKS = [
  'views',
  'viewcount',
  'channel',
  'channelid',
  'channeltitle',
  'videoid',
  'itemid',
  'duration',
];

/** The roles that a table of a material cannot do without, and are not there. */
export function missingRoles(columns: readonly Column[], material: Material = 'messages'): ColumnRole[] {
  return NEEDED_ROLES[material].filter((role) => !columns.some((column) => column.role === role));
}

/** Whether all are numbers, and none a code that would lose its writing as a number. */
function isSmallNumber(values: readonly string[]): boolean {
  return (
    values.length > 0 &&
    values.every((value) => /^-?\d{1,15}(?:\.\d+)?$/.test(value)) &&
    areWrittenBack(values) &&
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
