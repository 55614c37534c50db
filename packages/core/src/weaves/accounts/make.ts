import {
  ADDRESS_KINDS,
  type AccountWeave,
  type AddressKind,
  type Direction,
  type MessageKind,
} from '@pebble/contract';
import { distinctDays } from '../common/days';
import { keepNodes, keepTies } from '../common/keepNodes';
import { PairTable } from '../common/pairTable';
import { pick, pickNumbers } from '../common/rows';
import { ADDRESS_VERB, counted } from '../../words/sentence';
import { undirected } from '../common/undirected';
import type { Woven } from '../common/woven';

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

/** The bit of rows of a repost after what it reposts was left out: the mentions in its text are still those of another message. */
export const IN_REPOST = 256;

/** What messages do, one after the other. */
interface AddressVisitor {
  /**
   * A message of the period, by its first row.
   * @param isCrowded whether it addresses more accounts than are wanted; it makes no tie then
   */
  wrote?(row: number, isCrowded: boolean): void;
  /**
   * A tie that a message makes: from the author of its row to an account, which is the author where the message addresses nobody.
   * @param mask bits of the ways in which it is addressed; 0 where nobody is
   * @param amount what it counts for
   */
  tie(row: number, to: number, mask: number, amount: number): void;
}

/**
 * The rule of what ties whom, which weights and evidence share. One message gives one tie to each account that it addresses in a wanted
 * way; one that addresses nobody in such a way ties its author to itself, where that is asked for.
 */
function visitAddresses(rows: AddressRows, weave: AccountWeave, visitor: AddressVisitor): void {
  let wanted = 0;
  for (const kind of weave.kinds) wanted |= KIND_BIT[kind];
  const { message, from, to, kinds, time, count } = rows;
  const most = weave.mostReceivers ?? Infinity;
  const divided = weave.share === 'divided';
  // Rows of one message follow each other.
  for (let i = 0; i < count;) {
    const begin = i;
    let all = 0;
    for (; i < count && message[i] === message[begin]; i++) all |= kinds[i];
    if (!isInPeriod(time[begin], weave)) continue;
    const isRepost = (all & (KIND_BIT.repost | IN_REPOST)) !== 0;
    const bits = isRepost && !weave.repostMentions ? wanted & ~KIND_BIT.mention : wanted;
    let addressed = 0;
    for (let j = begin; j < i; j++) if (kinds[j] & bits) addressed++;
    visitor.wrote?.(begin, addressed > most);
    if (addressed > most) continue;
    if (addressed === 0) {
      if (weave.selfTies) visitor.tie(begin, from[begin], 0, 1);
      continue;
    }
    const amount = divided ? 1 / addressed : 1;
    for (let j = begin; j < i; j++) {
      const mask = kinds[j] & bits;
      if (mask !== 0 && (from[j] !== to[j] || weave.selfTies)) visitor.tie(j, to[j], mask, amount);
    }
  }
}

/** Messages as they tie accounts: one row for each message and tie. */
export interface AddressTies {
  readonly message: readonly number[];
  readonly from: readonly number[];
  readonly to: readonly number[];
  /** Milliseconds since 1970; NaN when the message has no date. */
  readonly time: readonly number[];
}

/** The ties that messages make, by the same rule as they are woven. */
export function addressTies(rows: AddressRows, weave: AccountWeave): AddressTies {
  const ties = { message: [] as number[], from: [] as number[], to: [] as number[], time: [] as number[] };
  visitAddresses(rows, weave, {
    tie(row, to) {
      ties.message.push(rows.message[row]);
      ties.from.push(rows.from[row]);
      ties.to.push(to);
      ties.time.push(rows.time[row]);
    },
  });
  return ties;
}

/**
 * The messages that some accounts wrote in the period, or that address one of them in a way that makes a tie.
 * @param isOne whether an account is one of them
 */
export function messagesAround(
  rows: AddressRows,
  weave: AccountWeave,
  isOne: (account: number) => boolean,
): Pick<AddressTies, 'message' | 'time'> {
  const found = { message: [] as number[], time: [] as number[] };
  let last = NaN;
  const add = (row: number): void => {
    if (rows.message[row] === last) return;
    last = rows.message[row];
    found.message.push(last);
    found.time.push(rows.time[row]);
  };
  visitAddresses(rows, weave, {
    wrote: (row) => void (isOne(rows.from[row]) && add(row)),
    tie: (row, to) => void (isOne(to) && add(row)),
  });
  return found;
}

/** How many messages make the ties of a network, by the numbers of its accounts. */
function countMessages(
  rows: AddressRows,
  weave: AccountWeave,
  { id, source, target }: Pick<Woven, 'id' | 'source' | 'target'>,
): number {
  const ties = new PairTable(0);
  const bothWays = countsBothWays(weave);
  for (let e = 0; e < source.length; e++) {
    ties.find(id[source[e]], id[target[e]]);
    if (bothWays) ties.find(id[target[e]], id[source[e]]);
  }
  let messages = 0;
  let last = NaN;
  visitAddresses(rows, weave, {
    tie(row, to) {
      if (rows.message[row] === last || !ties.has(rows.from[row], to)) return;
      last = rows.message[row];
      messages++;
    },
  });
  return messages;
}

/** Whether messages in either direction make one tie; else those in the direction of the tie alone. */
export function countsBothWays({ direction }: Pick<AccountWeave, 'direction'>): boolean {
  return direction === 'sum' || direction === 'mutual';
}

/**
 * Weaves accounts by address. Common practice: one message gives one tie to each account it mentions or answers; a repost
 * one to its author and one to each account the reposted text mentions; a message that addresses nobody is a tie of its
 * author to itself. Where directions are dropped, both are joined first, and the threshold is asked of what they are together. Its evidence
 * is found in the rows themselves.
 */
export function weaveAccounts(rows: AddressRows, weave: AccountWeave): Woven {
  const pairs = gatherPairs(rows, weave);
  const { seen } = pairs;
  const isTurned = weave.direction !== 'kept';
  const all = allPairs(rows, weave, pairs, isTurned ? 1 : weave.atLeast);
  if (!isTurned) return keepNodes(all, nodesOf(all, weave, seen));
  const turned = undirected(all, weave.direction as Exclude<Direction, 'kept'>);
  const messages = turned.columns['messages'] ?? turned.weight;
  const kept = Uint32Array.from(turned.source.keys()).filter((e) => messages[e] >= weave.atLeast);
  const strong = {
    ...keepTies(turned, kept, null),
    droppedBelowThreshold: turned.source.length - kept.length,
  };
  return keepNodes(strong, nodesOf(strong, weave, seen));
}

/** Places of the nodes that stay: those with a tie, and where isolates are kept all that wrote or were addressed. */
function nodesOf({ id, source, target }: Woven, { isolates }: AccountWeave, seen: Uint8Array): Uint32Array {
  const isTied = new Uint8Array(id.length);
  for (const ends of [source, target]) for (const v of ends) isTied[v] = 1;
  return Uint32Array.from(id.keys()).filter((v) => isTied[v] === 1 || (isolates && seen[id[v]] === 1));
}

/** All pairs with so many messages as directed ties, among all accounts that wrote or were addressed. */
function allPairs(
  rows: AddressRows,
  weave: AccountWeave,
  { table, seen, largestAccount, wrote, crowded, days }: GatheredPairs,
  atLeast: number,
): Woven {
  const kept = table.sorted((p) => table.count[p] >= atLeast);
  const account: number[] = [];
  const number = new Int32Array(seen.length).fill(-1);
  for (let a = 0; a < seen.length; a++) if (seen[a]) number[a] = account.push(a) - 1;
  const divided = weave.share === 'divided';
  const column = (values: ArrayLike<number>): Float64Array => pickNumbers(kept, (p) => values[p]);
  const kinds = weave.kinds.map((kind) => [
    KIND_COLUMN[kind],
    column(table.byKind[Math.log2(KIND_BIT[kind])]),
  ]);
  return {
    directed: true,
    id: Uint32Array.from(account),
    mode: new Uint8Array(account.length),
    uses: Float64Array.from(account, (a) => wrote[a]),
    days: () => {
      const all = daysOfAuthors(rows, weave, largestAccount);
      return Float64Array.from(account, (a) => all[a]);
    },
    source: pick(kept, (p) => number[table.from[p]]),
    target: pick(kept, (p) => number[table.to[p]]),
    weight: column(divided ? table.amount : table.count),
    columns: {
      ...(Object.fromEntries(kinds) as Record<string, Float64Array>),
      ...(divided ? { messages: column(table.count) } : {}),
      days: column(days()),
      first: column(table.first),
      last: column(table.last),
    },
    evidence: null,
    countMessages: (ties) => countMessages(rows, weave, ties),
    droppedBelowThreshold: table.size - kept.length,
    notes:
      crowded > 0
        ? [
            `${counted(crowded, 'message')} to more than ${counted(weave.mostReceivers!, 'account')} ${crowded === 1 ? 'was' : 'were'} left out.`,
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
  /** Messages that each account wrote in the period. */
  readonly wrote: Float64Array;
  /** Messages that address more accounts than are wanted. */
  readonly crowded: number;
  /** Days (UTC) with messages of each pair; in either direction where both are added up. */
  days(): Float64Array;
}

function gatherPairs(rows: AddressRows, weave: AccountWeave): GatheredPairs {
  let largestAccount = 0;
  for (let i = 0; i < rows.count; i++) {
    if (rows.from[i] > largestAccount) largestAccount = rows.from[i];
    if (rows.to[i] > largestAccount) largestAccount = rows.to[i];
  }
  const seen = new Uint8Array(largestAccount + 1);
  const table = new PairTable(ADDRESS_KINDS.length);
  const { from, time, count } = rows;
  const wrote = new Float64Array(largestAccount + 1);
  let crowded = 0;
  // The pair and the moment of every row that counts, for the days.
  const pairOf = new Uint32Array(count);
  const dailyTieCounts = new Float64Array(count);
  let size = 0;
  visitAddresses(rows, weave, {
    wrote(row, isCrowded) {
      wrote[from[row]]++;
      if (isCrowded) crowded++;
      else seen[from[row]] = 1;
    },
    tie(row, to, mask, amount) {
      seen[to] = 1;
      dailyTieCounts[size] = time[row];
      pairOf[size++] = table.add(from[row], to, mask, time[row], amount);
    },
  });
  const days = (): Float64Array =>
    daysOf(table, pairOf.subarray(0, size), dailyTieCounts, countsBothWays(weave));
  return { table, seen, largestAccount, wrote, crowded, days };
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
  dailyTieCounts: Float64Array,
  bothWays: boolean,
): Float64Array {
  if (!bothWays) return distinctDays(table.size, pairOf, dailyTieCounts);
  const unordered = new PairTable(0);
  const either = new Uint32Array(table.size);
  for (let p = 0; p < table.size; p++)
    either[p] = unordered.find(Math.min(table.from[p], table.to[p]), Math.max(table.from[p], table.to[p]));
  const rows = pairOf.map((p) => either[p]);
  const days = distinctDays(unordered.size, rows, dailyTieCounts);
  return Float64Array.from(either, (u) => days[u]);
}
