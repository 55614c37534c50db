import type { NetworkChange } from '@pebble/contract';
import { numbersOf, type TableColumns } from './tables';

/** Marks a node that was taken out, in `became`. */
export const TAKEN_OUT = 0xffffffff;
/** Says of nodes and ties what hands did with them; empty for those that were left as they were. */
export const BY_HAND = 'by hand';

/** A network with what hands changed. */
export interface ChangedNetwork {
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  /** The new number of each node of the network before; TAKEN_OUT for one that is no longer there. */
  readonly became: Uint32Array;
  /** The number that each node had before; -1 for one that was added. */
  readonly was: Int32Array;
  readonly done: ChangesDone;
}

/** What changes did. */
export interface ChangesDone {
  readonly nodesOut: number;
  readonly nodesIn: number;
  /** Nodes that became a part of another one. */
  readonly merged: number;
  /** Ties that were taken out by themselves, and those that went with a node. */
  readonly tiesOut: number;
  readonly tiesGone: number;
  readonly tiesIn: number;
  /** Ties that hands made stronger. */
  readonly tiesStronger: number;
  /** Ties between nodes that became one. */
  readonly tiesWithin: number;
  /** Ties that became one when their ends were merged. */
  readonly tiesJoined: number;
}

interface Tie {
  source: number;
  target: number;
  /** Rows of the table before that it is made of. */
  rows: number[];
  added: number;
}

/**
 * Changes that hands make to a network, in their order. Nodes are numbered as in the table; those that are added go on from there. The
 * merged keep the values of the node that they become; their messages are added up, as are the weights of ties that become one. Columns of
 * a tie made of several that cannot be added up have no value.
 * @param nodes the columns that are to go along
 * @throws RangeError on a change that names what is not there (any more), with its words
 */
export function changeNetwork(
  nodes: TableColumns,
  edges: TableColumns,
  directed: boolean,
  changes: readonly NetworkChange[],
): ChangedNetwork {
  const work = new Changing(nodes, edges, directed);
  for (const change of changes) work.take(change);
  return work.finish();
}

class Changing {
  /** The node that each one is a part of; TAKEN_OUT for none. */
  private readonly of: number[];
  private readonly added: string[] = [];
  private readonly mark = new Map<number, string>();
  private readonly ties = new Map<string, Tie>();
  private readonly before: number;
  private done = {
    nodesOut: 0,
    nodesIn: 0,
    merged: 0,
    tiesOut: 0,
    tiesGone: 0,
    tiesIn: 0,
    tiesStronger: 0,
    tiesWithin: 0,
    tiesJoined: 0,
  };

  constructor(
    private readonly nodes: TableColumns,
    private readonly edges: TableColumns,
    private readonly directed: boolean,
  ) {
    this.before = nodes['handle'].length;
    this.of = Array.from({ length: this.before }, (_, v) => v);
    const source = numbersOf(edges, 'source');
    const target = numbersOf(edges, 'target');
    for (let e = 0; e < source.length; e++)
      this.ties.set(this.key(source[e], target[e]), {
        source: source[e],
        target: target[e],
        rows: [e],
        added: 0,
      });
  }

  take(change: NetworkChange): void {
    switch (change.what) {
      case 'without-nodes':
        return this.takeOutNodes(change.nodes);
      case 'without-ties':
        return this.takeOutTies(change.ties);
      case 'new-node':
        return this.addNode(change.name);
      case 'new-tie':
        return this.addTie(change.source, change.target, change.weight);
      case 'merged':
        return this.merge(change.nodes, change.into);
    }
  }

  private key(a: number, b: number): string {
    return this.directed || a <= b ? `${a} ${b}` : `${b} ${a}`;
  }

  /** The node that one is now. */
  private now(node: number): number {
    const at = this.of[node];
    if (at === undefined) throw new RangeError(`There is no node ${node}.`);
    if (at === TAKEN_OUT) throw new RangeError(`“${this.nameOf(node)}” was taken out before.`);
    return at;
  }

  private nameOf(node: number): string {
    return node < this.before ? String(this.nodes['handle'][node]) : this.added[node - this.before];
  }

  private takeOutNodes(nodes: readonly number[]): void {
    const out = new Set(nodes.map((node) => this.now(node)));
    this.done.nodesOut += out.size;
    for (let v = 0; v < this.of.length; v++) if (out.has(this.of[v])) this.of[v] = TAKEN_OUT;
    for (const [key, { source, target }] of this.ties)
      if (out.has(source) || out.has(target)) {
        this.ties.delete(key);
        this.done.tiesGone++;
      }
  }

  private takeOutTies(ties: readonly { source: number; target: number }[]): void {
    for (const { source, target } of ties) {
      if (!this.ties.delete(this.key(this.now(source), this.now(target))))
        throw new RangeError(
          `There is no tie between “${this.nameOf(source)}” and “${this.nameOf(target)}”.`,
        );
      this.done.tiesOut++;
    }
  }

  private addNode(name: string): void {
    const node = this.of.length;
    this.of.push(node);
    this.added.push(name);
    this.mark.set(node, 'added');
    this.done.nodesIn++;
  }

  private addTie(from: number, to: number, weight: number): void {
    const [source, target] = [this.now(from), this.now(to)];
    const known = this.ties.get(this.key(source, target));
    if (known) {
      known.added += weight;
      this.done.tiesStronger++;
      return;
    }
    const [a, b] = this.directed || source <= target ? [source, target] : [target, source];
    this.ties.set(this.key(a, b), { source: a, target: b, rows: [], added: weight });
    this.done.tiesIn++;
  }

  private merge(nodes: readonly number[], into: number): void {
    const stays = this.now(into);
    const merged = new Set(nodes.map((node) => this.now(node)).filter((node) => node !== stays));
    if (merged.size === 0) throw new RangeError('Choose at least two nodes that are to become one.');
    this.done.merged += merged.size;
    this.mark.set(stays, 'merged');
    for (let v = 0; v < this.of.length; v++) if (merged.has(this.of[v])) this.of[v] = stays;
    for (const [key, tie] of [...this.ties]) {
      if (!merged.has(tie.source) && !merged.has(tie.target)) continue;
      this.ties.delete(key);
      this.lead(tie, stays, merged);
    }
  }

  /** Leads a tie of merged nodes to the node that they became. */
  private lead(tie: Tie, stays: number, merged: ReadonlySet<number>): void {
    const end = (node: number): number => (merged.has(node) ? stays : node);
    const wasLoop = tie.source === tie.target;
    const ends = [end(tie.source), end(tie.target)];
    if (!this.directed) ends.sort((a, b) => a - b);
    const [source, target] = ends;
    if (source === target && !wasLoop) {
      this.done.tiesWithin++;
      return;
    }
    const known = this.ties.get(this.key(source, target));
    if (known) {
      this.done.tiesJoined++;
      known.rows.push(...tie.rows);
      known.added += tie.added;
    } else this.ties.set(this.key(source, target), { ...tie, source, target });
  }

  finish(): ChangedNetwork {
    const kept = this.of.flatMap((node, v) => (node === v ? [v] : []));
    const place = new Map(kept.map((v, i) => [v, i]));
    const became = Uint32Array.from({ length: this.before }, (_, v) => place.get(this.of[v]) ?? TAKEN_OUT);
    const ties = [...this.ties.values()].sort(
      (a, b) => place.get(a.source)! - place.get(b.source)! || place.get(a.target)! - place.get(b.target)!,
    );
    return {
      nodes: this.nodeTable(kept),
      edges: this.edgeTable(ties, (node) => place.get(node)!),
      became,
      was: Int32Array.from(kept, (v) => (v < this.before ? v : -1)),
      done: this.done,
    };
  }

  private nodeTable(kept: readonly number[]): TableColumns {
    const table: Record<string, TableColumns[string]> = {};
    for (const [name, column] of Object.entries(this.nodes)) {
      if (name === BY_HAND) continue;
      table[name] = Array.isArray(column)
        ? kept.map((v) => (v < this.before ? (column[v] as string) : ''))
        : Float64Array.from(kept, (v) => (v < this.before ? Number(column[v]) : NaN));
    }
    table['id'] = this.ids(kept);
    table['handle'] = kept.map((v) => this.nameOf(v));
    if ('messages' in this.nodes) table['messages'] = this.messages(kept);
    const was = this.nodes[BY_HAND];
    table[BY_HAND] = kept.map((v) => this.mark.get(v) ?? (was && v < this.before ? String(was[v]) : ''));
    return table;
  }

  /** Nodes keep their ids; those that are added have the next ones. */
  private ids(kept: readonly number[]): Uint32Array {
    const ids = numbersOf(this.nodes, 'id');
    let next = 0;
    for (const id of ids) next = Math.max(next, id + 1);
    return Uint32Array.from(kept, (v) => (v < this.before ? ids[v] : next + v - this.before));
  }

  private messages(kept: readonly number[]): Uint32Array {
    const messages = numbersOf(this.nodes, 'messages');
    const sums = new Map<number, number>();
    for (let v = 0; v < this.before; v++) sums.set(this.of[v], (sums.get(this.of[v]) ?? 0) + messages[v]);
    return Uint32Array.from(kept, (v) => sums.get(v) ?? 0);
  }

  private edgeTable(ties: readonly Tie[], placeOf: (node: number) => number): TableColumns {
    const table: Record<string, TableColumns[string]> = {
      source: Uint32Array.from(ties, ({ source }) => placeOf(source)),
      target: Uint32Array.from(ties, ({ target }) => placeOf(target)),
    };
    for (const [name, column] of Object.entries(this.edges)) {
      if (name === 'source' || name === 'target' || name === BY_HAND) continue;
      table[name] = Array.isArray(column)
        ? ties.map(({ rows }) => (rows.length === 1 ? (column[rows[0]] as string) : ''))
        : joinedNumbers(name, column as ArrayLike<number>, ties);
    }
    const was = this.edges[BY_HAND];
    table[BY_HAND] = ties.map(({ rows, added }) => {
      if (rows.length === 0) return 'added';
      if (added > 0) return 'made stronger';
      return rows.length > 1 ? 'merged' : was ? String(was[rows[0]]) : '';
    });
    return table;
  }
}

/** Columns that are added up when ties become one: their weight, and counts of messages by kind. */
const CANNOT_BE_ADDED = new Set(['days', 'chance', 'ties']);

function joinedNumbers(name: string, column: ArrayLike<number>, ties: readonly Tie[]): Float64Array {
  return Float64Array.from(ties, ({ rows, added }) => {
    const values = rows.map((row) => column[row]);
    if (name === 'first') return least(values);
    if (name === 'last') return -least(values.map((value) => -value));
    const sum = values.reduce((all, value) => all + value, 0);
    if (name === 'weight') return sum + added;
    if (values.length === 0) return CANNOT_BE_ADDED.has(name) ? NaN : 0;
    return values.length > 1 && CANNOT_BE_ADDED.has(name) ? NaN : sum;
  });
}

/** NaN where nothing is known. */
function least(values: readonly number[]): number {
  const known = values.filter((value) => !Number.isNaN(value));
  return known.length === 0 ? NaN : Math.min(...known);
}
