import { ADDRESS_KINDS, type AccountWeave, type AddressKind, type MessageKind } from '@pebble/contract';
import { distinctDays } from './days';
import { PairTable } from './pairTable';
import { ADDRESS_VERB, counted } from './sentence';
import type { Woven } from './woven';

/** The bit of each kind of address in `AddressRows.kinds`. */
export const KIND_BIT: Readonly<Record<AddressKind, number>> = {
  reply: 1,
  mention: 2,
  repost: 4,
  to: 8,
  cc: 16,
  bcc: 32,
  quote: 64,
  comment: 128,
};

/** The bit by which a message addresses whom it has as its parent's author, by the kind of message. */
export function parentBit(kind: MessageKind): number {
  return kind === 'repost' || kind === 'quote' || kind === 'comment' ? KIND_BIT[kind] : KIND_BIT.reply;
}

/**
 * Who addressed whom, one row for each pair of message and addressed account. A message that addresses nobody has one
 * row from its author to itself with kinds 0.
 */
export interface AddressRows {
  readonly count: number;
  readonly message: ArrayLike<number>;
  /** Accounts by their number in the study. */
  readonly from: ArrayLike<number>;
  readonly to: ArrayLike<number>;
  readonly kinds: ArrayLike<number>;
  /** Milliseconds since 1970; NaN when the message has no date. */
  readonly time: ArrayLike<number>;
}

/** Names of the columns of ties that count messages by kind. */
const KIND_COLUMN: Readonly<Record<AddressKind, string>> = {
  reply: 'replies',
  comment: 'comment replies',
  quote: 'quotes',
  mention: 'mentions',
  repost: 'reposts',
  to: 'sent',
  cc: 'copies',
  bcc: 'blind copies',
};

/**
 * Weaves accounts by address. Common practice: one message gives one tie to each account it mentions or answers; a repost
 * one to its author and one to each account the reposted text mentions; a message that addresses nobody is a tie of its
 * author to itself. Its evidence is found in the rows themselves.
 */
export function weaveAccounts(rows: AddressRows, weave: AccountWeave): Woven {
  const pairs = gatherPairs(rows, weave);
  const { table, seen } = pairs;
  const kept = table.sorted((p) => table.count[p] >= weave.atLeast);
  const isNode = new Uint8Array(pairs.largestAccount + 1);
  for (const p of kept) {
    isNode[table.from[p]] = 1;
    isNode[table.to[p]] = 1;
  }
  if (weave.isolates) for (let a = 0; a < seen.length; a++) if (seen[a]) isNode[a] = 1;
  const account: number[] = [];
  const number = new Int32Array(isNode.length).fill(-1);
  for (let a = 0; a < isNode.length; a++) if (isNode[a]) number[a] = account.push(a) - 1;
  // Plain loops: making typed arrays by a function for each value takes ten times as long.
  const ends = (accounts: ArrayLike<number>): Uint32Array => {
    const nodes = new Uint32Array(kept.length);
    for (let i = 0; i < kept.length; i++) nodes[i] = number[accounts[kept[i]]];
    return nodes;
  };
  const column = (values: ArrayLike<number>): Float64Array => {
    const cells = new Float64Array(kept.length);
    for (let i = 0; i < kept.length; i++) cells[i] = values[kept[i]];
    return cells;
  };
  const kinds = weave.kinds.map((kind) => [
    KIND_COLUMN[kind],
    column(table.byKind[Math.log2(KIND_BIT[kind])]),
  ]);
  const divided = weave.share === 'divided';
  return {
    directed: true,
    id: Uint32Array.from(account),
    mode: new Uint8Array(account.length),
    uses: Float64Array.from(account, (a) => pairs.wrote[a]),
    days: () => {
      const days = daysOfAuthors(rows, weave, pairs.largestAccount);
      return Float64Array.from(account, (a) => days[a]);
    },
    source: ends(table.from),
    target: ends(table.to),
    weight: column(divided ? table.amount : table.count),
    columns: {
      ...(Object.fromEntries(kinds) as Record<string, Float64Array>),
      ...(divided ? { messages: column(table.count) } : {}),
      days: column(pairs.days()),
      first: column(table.first),
      last: column(table.last),
    },
    evidence: null,
    messages: pairs.messages,
    droppedBelowThreshold: table.size - kept.length,
    notes:
      pairs.crowded > 0
        ? [
            `${counted(pairs.crowded, 'message')} to more than ${counted(weave.mostReceivers!, 'account')} ${pairs.crowded === 1 ? 'was' : 'were'} left out.`,
          ]
        : [],
  };
}

/** Which part of the sentence empties a network of accounts. */
export function whatEmptiesAccounts(rows: AddressRows, weave: AccountWeave, dropped: number): string {
  if (rows.count === 0) return 'There are no messages in this study yet.';
  if (dropped > 0)
    return `No pair of accounts has ${weave.atLeast} messages or more. Lower the number of messages.`;
  let inPeriod = 0;
  for (let i = 0; i < rows.count; i++) if (isInPeriod(rows.time[i], weave)) inPeriod++;
  if (inPeriod === 0) return 'No message falls in this period.';
  return `No message of this period ${weave.kinds.map((kind) => ADDRESS_VERB[kind]).join(' or ')} another account.`;
}

function isInPeriod(time: number, { from, until }: Pick<AccountWeave, 'from' | 'until'>): boolean {
  if (from === null && until === null) return true;
  return (from === null || time >= from) && (until === null || time < until);
}

interface GatheredPairs {
  readonly table: PairTable;
  /** 1 for every account that wrote or was addressed in the period. */
  readonly seen: Uint8Array;
  readonly largestAccount: number;
  readonly messages: number;
  /** Messages that each account wrote in the period. */
  readonly wrote: Float64Array;
  /** Messages that address more accounts than are wanted. */
  readonly crowded: number;
  /** Days (UTC) with messages of each pair; in either direction where directions are dropped. */
  days(): Float64Array;
}

function gatherPairs(rows: AddressRows, weave: AccountWeave): GatheredPairs {
  let wanted = 0;
  for (const kind of weave.kinds) wanted |= KIND_BIT[kind];
  let largestAccount = 0;
  for (let i = 0; i < rows.count; i++) {
    if (rows.from[i] > largestAccount) largestAccount = rows.from[i];
    if (rows.to[i] > largestAccount) largestAccount = rows.to[i];
  }
  const seen = new Uint8Array(largestAccount + 1);
  const table = new PairTable(ADDRESS_KINDS.length);
  const { message, from, to, kinds, time, count } = rows;
  const wrote = new Float64Array(largestAccount + 1);
  const most = weave.mostReceivers ?? Infinity;
  const divided = weave.share === 'divided';
  let messages = 0;
  let crowded = 0;
  // The pair and the moment of every row that counts, for the days.
  const pairOf = new Uint32Array(count);
  const moments = new Float64Array(count);
  let size = 0;
  // Rows of one message follow each other: one that addresses nobody in the wanted way is a tie to itself.
  for (let i = 0; i < count;) {
    const begin = i;
    let end = i;
    let all = 0;
    for (; end < count && message[end] === message[begin]; end++) all |= kinds[end];
    i = end;
    if (!isInPeriod(time[begin], weave)) continue;
    const bits = all & KIND_BIT.repost && !weave.repostMentions ? wanted & ~KIND_BIT.mention : wanted;
    let addressed = 0;
    for (let j = begin; j < end; j++) if (kinds[j] & bits) addressed++;
    wrote[from[begin]]++;
    if (addressed > most) {
      crowded++;
      continue;
    }
    seen[from[begin]] = 1;
    const amount = divided && addressed > 0 ? 1 / addressed : 1;
    for (let j = begin; j < end; j++) {
      const mask = kinds[j] & bits;
      if (mask === 0) continue;
      seen[to[j]] = 1;
      if (from[j] === to[j] && !weave.selfTies) continue;
      moments[size] = time[j];
      pairOf[size++] = table.add(from[j], to[j], mask, time[j], amount);
    }
    if (addressed === 0 && weave.selfTies) {
      moments[size] = time[begin];
      pairOf[size++] = table.add(from[begin], from[begin], 0, time[begin]);
    }
    if (addressed > 0 || weave.selfTies) messages++;
  }
  const days = (): Float64Array =>
    daysOf(table, pairOf.subarray(0, size), moments, weave.direction !== 'kept');
  return { table, seen, largestAccount, messages, wrote, crowded, days };
}

/** Days on which each account wrote in the period, by its number. */
function daysOfAuthors(
  { count, message, from, time }: AddressRows,
  weave: AccountWeave,
  largestAccount: number,
): Float64Array {
  const author: number[] = [];
  const moment: number[] = [];
  for (let i = 0; i < count; i++) {
    if ((i > 0 && message[i] === message[i - 1]) || !isInPeriod(time[i], weave)) continue;
    author.push(from[i]);
    moment.push(time[i]);
  }
  return distinctDays(largestAccount + 1, Uint32Array.from(author), moment);
}

/** Days of every pair; of both directions together where these are dropped, since a day may be in either. */
function daysOf(
  table: PairTable,
  pairOf: Uint32Array,
  moments: Float64Array,
  bothWays: boolean,
): Float64Array {
  if (!bothWays) return distinctDays(table.size, pairOf, moments);
  const unordered = new PairTable(0);
  const either = new Uint32Array(table.size);
  for (let p = 0; p < table.size; p++)
    either[p] = unordered.find(Math.min(table.from[p], table.to[p]), Math.max(table.from[p], table.to[p]));
  const rows = pairOf.map((p) => either[p]);
  const days = distinctDays(unordered.size, rows, moments);
  return Float64Array.from(either, (u) => days[u]);
}
