import type { Scale } from '@pebble/contract';
import { groupRows, setOf } from './rows';
import { MOST_TIES, TooManyTies } from './woven';

/** Which nodes belong to which units: a row for each pair; a pair that stands twice counts once. */
export interface Memberships {
  readonly nodes: number;
  readonly units: number;
  readonly node: Uint32Array;
  readonly unit: Uint32Array;
  /** Milliseconds since 1970, NaN where undated. */
  readonly time: Float64Array;
  /** The author of each row, where the authors of shared units are counted. */
  readonly author?: Uint32Array;
}

export interface Projection {
  /** Ends with source < target, by source and then target. */
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  readonly weight: Float64Array;
  /** Units that both have. */
  readonly shared: Float64Array;
  /** Moments of the first and the last shared unit, NaN where undated, and the days (UTC) on which they fall. */
  readonly first: Float64Array;
  readonly last: Float64Array;
  readonly days: Float64Array;
  readonly dropped: number;
}

const DAY = 86_400_000;
/** Places of what is added up for a node. */
const [SHARED, PARTS, FIRST, LAST, DAYS, LAST_DAY, AUTHORS, WIDTH] = [0, 1, 2, 3, 4, 5, 6, 7];
/** Weights above this are one class when the threshold that would fit is looked for. */
const CLASSES = 1_000_001;

/**
 * Ties nodes that share units: the off-diagonal of AAᵀ for the incidence matrix A, row by row with sparse rows (Gustavson 1978).
 * The weight is the number of shared units, or of the different authors of what stands in them of either node; or, each shared unit of size k counting 1 / (k - 1) (Newman 2001); or that
 * number over the units of either (Jaccard); or over the root of the product of both (cosine).
 * @param atLeast units (or authors) that two nodes share at least, however they are weighed
 * Throws TooManyTies.
 */
export function project(
  memberships: Memberships,
  {
    scale,
    atLeast,
    byAuthors = false,
    progress,
  }: {
    scale: Scale;
    atLeast: number;
    byAuthors?: boolean;
    /** Told now and then how much is done, 0 to 1; what it throws ends the work. */
    progress?: (share: number) => void;
  },
): Projection {
  const { nodes } = memberships;
  const { unitStart, unitNodes, nodeStart, nodeUnits, moment } = makeRows(memberships);
  const out = new Columns();
  // What is added up of each node stands together, since the nodes come in no order.
  const sums = new Float64Array(nodes * WIDTH);
  const touched = new Uint32Array(nodes);
  const tally = new Uint32Array(1024);
  const authors = byAuthors ? authorCounter(memberships, unitStart, unitNodes) : null;
  const isNewman = scale === 'newman';
  let above = 0;
  let dropped = 0;
  let ties = 0;
  for (let a = 0; a < nodes; a++) {
    if ((a & 255) === 0) progress?.(a / nodes);
    let found = 0;
    for (let at = nodeStart[a]; at < nodeStart[a + 1]; at++) {
      const u = nodeUnits[at];
      const end = unitStart[u + 1];
      const time = moment[u];
      const isDated = time === time;
      const day = Math.floor(time / DAY);
      const part = isNewman ? 1 / (end - unitStart[u] - 1) : 0;
      for (let i = unitStart[u]; i < end; i++) {
        const b = unitNodes[i];
        if (b <= a) continue;
        const sum = b * WIDTH;
        if (sums[sum + SHARED]++ === 0) {
          touched[found++] = b;
          sums[sum + PARTS] = 0;
          sums[sum + FIRST] = time;
          sums[sum + LAST] = time;
          sums[sum + DAYS] = 0;
          sums[sum + LAST_DAY] = NaN;
          sums[sum + AUTHORS] = 0;
        }
        sums[sum + PARTS] += part;
        // Units come in the order of their moments, undated ones last.
        if (isDated) {
          sums[sum + LAST] = time;
          if (sums[sum + LAST_DAY] !== day) {
            sums[sum + DAYS]++;
            sums[sum + LAST_DAY] = day;
          }
        }
      }
    }
    if (authors) {
      const own = nodeUnits.subarray(nodeStart[a], nodeStart[a + 1]);
      authors(a, own, (b, count) => (sums[b * WIDTH + AUTHORS] = count));
    }
    for (const b of touched.subarray(0, found).sort()) {
      const sum = b * WIDTH;
      const shared = sums[sum + SHARED];
      sums[sum + SHARED] = 0;
      const strength = byAuthors ? sums[sum + AUTHORS] : shared;
      if (strength < atLeast) {
        dropped++;
        continue;
      }
      if (strength < tally.length) tally[strength]++;
      else above++;
      if (++ties > MOST_TIES) continue;
      const weight =
        scale === 'count' ? strength : weightOf(scale, shared, sums[sum + PARTS], a, b, nodeStart);
      out.add(a, b, weight, shared, sums[sum + FIRST], sums[sum + LAST], sums[sum + DAYS]);
    }
  }
  if (ties > MOST_TIES) throw new TooManyTies(ties, fitting(tally, above, atLeast));
  return { ...out.finish(), dropped };
}

function weightOf(
  scale: Exclude<Scale, 'count'>,
  shared: number,
  parts: number,
  a: number,
  b: number,
  start: Uint32Array,
): number {
  const unitsOf = (node: number): number => start[node + 1] - start[node];
  switch (scale) {
    case 'newman':
      return parts;
    case 'jaccard':
      return shared / (unitsOf(a) + unitsOf(b) - shared);
    case 'cosine':
      return shared / Math.sqrt(unitsOf(a) * unitsOf(b));
  }
}

/** Tells of each node that shares units with `a`, and is after it, how many authors wrote what stands in these of either. */
type AuthorCounter = (a: number, units: Uint32Array, tell: (b: number, authors: number) => void) => void;

function authorCounter(
  memberships: Memberships,
  unitStart: Uint32Array,
  unitNodes: Uint32Array,
): AuthorCounter {
  const authorOf = onlyAuthors(memberships);
  return authorOf ? ofOneAuthor(authorOf, unitStart, unitNodes, memberships.nodes) : ofSeveral(memberships);
}

/** The author of each unit; null where a unit has several. */
function onlyAuthors({ units, unit, author }: Memberships): Float64Array | null {
  const authorOf = new Float64Array(units).fill(-1);
  for (let i = 0; i < unit.length; i++) {
    if (authorOf[unit[i]] >= 0 && authorOf[unit[i]] !== author![i]) return null;
    authorOf[unit[i]] = author![i];
  }
  return authorOf;
}

/** Units are gone through author by author. */
function ofOneAuthor(
  authorOf: Float64Array,
  unitStart: Uint32Array,
  unitNodes: Uint32Array,
  nodes: number,
): AuthorCounter {
  const count = new Uint32Array(nodes);
  const lastAuthor = new Float64Array(nodes);
  return (a, units, tell) => {
    const met: number[] = [];
    for (const u of units.slice().sort((x, y) => authorOf[x] - authorOf[y] || x - y))
      for (let i = unitStart[u]; i < unitStart[u + 1]; i++) {
        const b = unitNodes[i];
        if (b <= a) continue;
        if (count[b] === 0) met.push(b);
        else if (lastAuthor[b] === authorOf[u]) continue;
        lastAuthor[b] = authorOf[u];
        count[b]++;
      }
    for (const b of met) {
      tell(b, count[b]);
      count[b] = 0;
    }
  };
}

/** Of a thread with several authors those count who wrote something of either node. */
function ofSeveral({ units, unit, node, author }: Memberships): AuthorCounter {
  const rows = groupRows(units, unit);
  return (a, own, tell) => {
    const authors = new Map<number, Set<number>>();
    for (const u of own) {
      const inUnit = rows.values.subarray(rows.start[u], rows.start[u + 1]);
      const ofA = new Set(
        Array.from(
          inUnit.filter((i) => node[i] === a),
          (i) => author![i],
        ),
      );
      const met = new Set<number>();
      for (const i of inUnit) {
        if (node[i] <= a) continue;
        const found = setOf(authors, node[i]);
        found.add(author![i]);
        if (met.has(node[i])) continue;
        met.add(node[i]);
        for (const one of ofA) found.add(one);
      }
    }
    for (const [b, found] of authors) tell(b, found.size);
  };
}

/** The smallest number with which so few ties remain that they can be held. */
function fitting(tally: Uint32Array, above: number, atLeast: number): number {
  let left = above;
  for (let strength = tally.length - 1; strength > atLeast; strength--) {
    left += tally[strength];
    if (left > MOST_TIES) return Math.min(strength + 1, CLASSES);
  }
  return atLeast + 1;
}

interface Rows {
  readonly unitStart: Uint32Array;
  readonly unitNodes: Uint32Array;
  readonly nodeStart: Uint32Array;
  readonly nodeUnits: Uint32Array;
  /** The first moment of each unit. */
  readonly moment: Float64Array;
}

/** Both directions of the memberships as compressed sparse rows, each pair once; the units of a node stand in the order of their moments. */
function makeRows({ nodes, units, node, unit, time }: Memberships): Rows {
  const moment = new Float64Array(units).fill(NaN);
  for (let i = 0; i < unit.length; i++)
    if (!(moment[unit[i]] <= time[i])) moment[unit[i]] = Number.isNaN(time[i]) ? moment[unit[i]] : time[i];
  const byUnit = groupRows(units, unit);
  // Each unit's nodes once: for which unit a node was last seen is remembered.
  const seenIn = new Int32Array(nodes).fill(-1);
  const unitStart = new Uint32Array(units + 1);
  const unitNodes = new Uint32Array(unit.length);
  let at = 0;
  for (let u = 0; u < units; u++) {
    for (let i = byUnit.start[u]; i < byUnit.start[u + 1]; i++) {
      const v = node[byUnit.values[i]];
      if (seenIn[v] === u) continue;
      seenIn[v] = u;
      unitNodes[at++] = v;
    }
    unitStart[u + 1] = at;
  }
  const nodeStart = new Uint32Array(nodes + 1);
  for (let i = 0; i < at; i++) nodeStart[unitNodes[i] + 1]++;
  for (let v = 0; v < nodes; v++) nodeStart[v + 1] += nodeStart[v];
  const next = nodeStart.slice(0, nodes);
  const nodeUnits = new Uint32Array(at);
  for (const u of byMoment(moment))
    for (let i = unitStart[u]; i < unitStart[u + 1]; i++) nodeUnits[next[unitNodes[i]]++] = u;
  return { unitStart, unitNodes: unitNodes.subarray(0, at), nodeStart, nodeUnits, moment };
}

/** Units by their moments, undated ones last; equal ones by their numbers. */
function byMoment(moment: Float64Array): Uint32Array {
  const order = new Uint32Array(moment.length);
  for (let u = 0; u < order.length; u++) order[u] = u;
  let isOrdered = true;
  for (let u = 1; u < order.length && isOrdered; u++)
    isOrdered = !(moment[u - 1] > moment[u]) && !Number.isNaN(moment[u - 1]);
  if (isOrdered) return order;
  const key = moment.map((time) => (Number.isNaN(time) ? Infinity : time));
  return order.sort((a, b) => (key[a] === key[b] ? a - b : key[a] < key[b] ? -1 : 1));
}

/** Ties as growing columns. */
class Columns {
  private size = 0;
  private ends = new Uint32Array(2048);
  private numbers = new Float64Array(5 * 1024);

  add(a: number, b: number, weight: number, shared: number, first: number, last: number, days: number): void {
    if (this.size * 2 === this.ends.length) {
      const ends = new Uint32Array(this.ends.length * 2);
      ends.set(this.ends);
      const numbers = new Float64Array(this.numbers.length * 2);
      numbers.set(this.numbers);
      this.ends = ends;
      this.numbers = numbers;
    }
    const i = this.size++;
    this.ends[2 * i] = a;
    this.ends[2 * i + 1] = b;
    const at = 5 * i;
    this.numbers[at] = weight;
    this.numbers[at + 1] = shared;
    this.numbers[at + 2] = first;
    this.numbers[at + 3] = last;
    this.numbers[at + 4] = days;
  }

  finish(): Omit<Projection, 'dropped'> {
    const end = (offset: number): Uint32Array => {
      const column = new Uint32Array(this.size);
      for (let i = 0; i < this.size; i++) column[i] = this.ends[2 * i + offset];
      return column;
    };
    const column = (offset: number): Float64Array => {
      const values = new Float64Array(this.size);
      for (let i = 0; i < this.size; i++) values[i] = this.numbers[5 * i + offset];
      return values;
    };
    return {
      source: end(0),
      target: end(1),
      weight: column(0),
      shared: column(1),
      first: column(2),
      last: column(3),
      days: column(4),
    };
  }
}
