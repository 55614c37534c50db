import { ADDRESS_KINDS, type AccountWeave, type AddressKind, type WeaveEstimate } from '@pebble/contract';
import { weakComponents } from '../graph/components';
import { PairTable } from './pairTable';
import { ADDRESS_VERB } from './sentence';

/** The bit of each kind of address in `AddressRows.kinds`. */
export const KIND_BIT: Readonly<Record<AddressKind, number>> = {
  reply: 1,
  mention: 2,
  repost: 4,
  to: 8,
  cc: 16,
  bcc: 32,
};

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

/** A network of accounts: node columns and edge columns, edges by row of `edgeSource` and `edgeTarget`. */
export interface AccountNetwork {
  /** Number of the account in the study, ascending. */
  readonly account: Uint32Array;
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  /** Messages that address the target, whatever their kind; each message once. */
  readonly weight: Float64Array;
  /** Messages by kind; a message that answers and mentions the same account stands in both. */
  readonly byKind: Readonly<Record<AddressKind, Float64Array>>;
  /** First and last moment of a tie's messages, NaN when none is dated. */
  readonly first: Float64Array;
  readonly last: Float64Array;
  /** Messages in the period by these kinds, or by nobody addressed when self-ties are wanted. */
  readonly messages: number;
  readonly droppedBelowThreshold: number;
}

/**
 * Weaves accounts by address. Common practice: one message gives one tie to each account it mentions or answers; a repost
 * one to its author and one to each account the reposted text mentions; a message that addresses nobody is a tie of its
 * author to itself.
 */
export function weaveAccounts(rows: AddressRows, weave: AccountWeave): AccountNetwork {
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
  const ends = (accounts: Uint32Array): Uint32Array => {
    const nodes = new Uint32Array(kept.length);
    for (let i = 0; i < kept.length; i++) nodes[i] = number[accounts[kept[i]]];
    return nodes;
  };
  const column = (values: ArrayLike<number>): Float64Array => {
    const cells = new Float64Array(kept.length);
    for (let i = 0; i < kept.length; i++) cells[i] = values[kept[i]];
    return cells;
  };
  return {
    account: Uint32Array.from(account),
    source: ends(table.from),
    target: ends(table.to),
    weight: column(table.count),
    byKind: Object.fromEntries(ADDRESS_KINDS.map((kind, k) => [kind, column(table.byKind[k])])) as Record<
      AddressKind,
      Float64Array
    >,
    first: column(table.first),
    last: column(table.last),
    messages: pairs.messages,
    droppedBelowThreshold: table.size - kept.length,
  };
}

/** How large the network would be, and which part of the sentence empties it when it is empty. */
export function estimateAccounts(rows: AddressRows, weave: AccountWeave): WeaveEstimate {
  const woven = weaveAccounts(rows, weave);
  const nodes = woven.account.length;
  const { count, size } = weakComponents({
    nodeCount: nodes,
    source: woven.source,
    target: woven.target,
    weight: woven.weight,
  });
  let selfTies = 0;
  const tied = new Uint8Array(nodes);
  for (let e = 0; e < woven.source.length; e++) {
    if (woven.source[e] === woven.target[e]) selfTies++;
    else tied[woven.source[e]] = tied[woven.target[e]] = 1;
  }
  return {
    messages: woven.messages,
    nodes,
    edges: woven.source.length,
    selfTies,
    isolates: tied.reduce((sum, t) => sum + (t ? 0 : 1), 0),
    components: count,
    largest: size[0] ?? 0,
    largestShare: nodes ? size[0] / nodes : 0,
    droppedBelowThreshold: woven.droppedBelowThreshold,
    emptiedBy: woven.source.length > 0 ? null : whatEmpties(rows, weave, woven.droppedBelowThreshold),
  };
}

function whatEmpties(rows: AddressRows, weave: AccountWeave, dropped: number): string {
  if (rows.count === 0) return 'There are no messages in this study yet.';
  if (dropped > 0)
    return `No pair of accounts has ${weave.atLeast} messages or more. Lower the number of messages.`;
  let inPeriod = 0;
  for (let i = 0; i < rows.count; i++) if (isInPeriod(rows.time[i], weave)) inPeriod++;
  if (inPeriod === 0) return 'No message falls in this period.';
  return `No message of this period ${weave.kinds.map((kind) => ADDRESS_VERB[kind]).join(' or ')} another account.`;
}

function isInPeriod(time: number, { from, until }: AccountWeave): boolean {
  if (from === null && until === null) return true;
  return (from === null || time >= from) && (until === null || time < until);
}

interface GatheredPairs {
  readonly table: PairTable;
  /** 1 for every account that wrote or was addressed in the period. */
  readonly seen: Uint8Array;
  readonly largestAccount: number;
  readonly messages: number;
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
  let messages = 0;
  // Rows of one message follow each other: a message that addresses nobody in the wanted way is one tie to itself.
  for (let i = 0; i < count;) {
    const current = message[i];
    const inPeriod = isInPeriod(time[i], weave);
    let addressed = 0;
    let j = i;
    for (; j < count && message[j] === current; j++) {
      if (!inPeriod) continue;
      seen[from[j]] = 1;
      const mask = kinds[j] & wanted;
      if (mask === 0) continue;
      addressed++;
      seen[to[j]] = 1;
      if (from[j] !== to[j] || weave.selfTies) table.add(from[j], to[j], mask, time[j]);
    }
    if (inPeriod && addressed === 0 && weave.selfTies) table.add(from[i], from[i], 0, time[i]);
    if (inPeriod && (addressed > 0 || weave.selfTies)) messages++;
    i = j;
  }
  return { table, seen, largestAccount, messages };
}
