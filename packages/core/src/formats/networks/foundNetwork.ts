import type { TableColumns } from '../../network/tables';
import { isTakenColumn } from '../../measures/columns';
import { counted } from '../../words/sentence';
import { type ColumnType, isHeldExactly, typedColumn } from '../../network/typedColumn';

/** A finished network as a file holds it. Nodes are numbered in the order in which the file names them. */
export interface FoundNetwork {
  readonly directed: boolean;
  readonly nodeCount: number;
  /** Node columns: "handle" (the key by which the file knows the node), "name" (its label), and what else the file has. */
  readonly nodes: TableColumns;
  /** Edge columns: source and target (numbers of nodes), weight, and what else the file has. */
  readonly edges: TableColumns;
  readonly weighted: boolean;
  /** What was merged, left out or assumed, in sentences. */
  readonly notes: readonly string[];
}

/** A file that holds no network that can be read; says where and why. */
export class BrokenNetwork extends Error {
  constructor(
    message: string,
    readonly row: number | null = null,
  ) {
    super(message);
  }
}

type Attributes = Readonly<Record<string, string>>;

/** Names that the columns of edges need; __proto__ is none that a table can have. */
const TAKEN_BY_EDGES = ['source', 'target', 'weight', 'first', 'last'];

/** Whether a column of a file cannot have its name, because every network has one of its own. */
function isTaken(name: string, kind: 'node' | 'edge'): boolean {
  return name === '__proto__' || (kind === 'node' ? isTakenColumn(name) : TAKEN_BY_EDGES.includes(name));
}

/** Values of named columns, filled row by row; a row without a value has an empty text. */
class Columns {
  private readonly values = new Map<string, string[]>();
  private readonly types = new Map<string, ColumnType>();

  /** Says what a column holds; one that is a text anywhere is one. */
  say(name: string, type: ColumnType): void {
    if (this.types.get(name) !== 'text') this.types.set(name, type);
  }

  /** Names of columns that differ between two rows. */
  differing(a: number, b: number): string[] {
    return [...this.values]
      .filter(([, column]) => (column[a] ?? '') !== (column[b] ?? ''))
      .map(([name]) => name);
  }

  set(row: number, name: string, value: string): void {
    let column = this.values.get(name);
    if (!column) this.values.set(name, (column = []));
    while (column.length < row) column.push('');
    column[row] = value;
  }

  get(row: number, name: string): string {
    return this.values.get(name)?.[row] ?? '';
  }

  /** Columns of so many rows, numbers where they are ones. @param note is told what else became of them */
  finish(
    rows: number,
    kind: 'node' | 'edge',
    note: (sentence: string) => void,
  ): Record<string, Float64Array | string[]> {
    const out: Record<string, Float64Array | string[]> = {};
    for (const [name, column] of this.values) {
      while (column.length < rows) column.push('');
      const said = this.types.get(name) ?? null;
      const typed = typedColumn(column, said);
      if (said === 'number' && !(typed instanceof Float64Array)) {
        const cut = column.find((value) => value !== '' && !isHeldExactly(value))!;
        note(
          `The column “${name}” is kept as text: it holds “${cut.slice(0, 40)}”, which no number holds exactly.`,
        );
      }
      const own = isTaken(name, kind) ? `${name} in file` : name;
      if (own !== name)
        note(
          `The column “${name}” of the file is called “${own}” here, since every network has one of its own.`,
        );
      out[own] = typed;
    }
    return out;
  }
}

/** Finds pairs of ends again: a hash table of places in typed numbers, as large as it ever needs to be. */
class PairPlaces {
  private readonly slots: Int32Array;
  private readonly mask: number;

  constructor(most: number) {
    let size = 16;
    while (size < most * 2) size *= 2;
    this.slots = new Int32Array(size).fill(-1);
    this.mask = size - 1;
  }

  /** The place of the pair of edge e among the first ones of each pair; the next free place when it is new. */
  of(e: number, ends: Uint32Array, first: readonly number[]): number {
    const a = ends[2 * e];
    const b = ends[2 * e + 1];
    let slot = (Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b)) >>> 0;
    for (slot = (slot ^ (slot >>> 15)) & this.mask; this.slots[slot] >= 0; slot = (slot + 1) & this.mask) {
      const other = first[this.slots[slot]];
      if (ends[2 * other] === a && ends[2 * other + 1] === b) return this.slots[slot];
    }
    return (this.slots[slot] = first.length);
  }
}

/** Builds a network from nodes and ties in the order in which a file names them. */
export class NetworkBuilder {
  private readonly number = new Map<string, number>();
  private readonly keys: string[] = [];
  private readonly labels: string[] = [];
  private readonly source: number[] = [];
  private readonly target: number[] = [];
  private readonly weight: number[] = [];
  private readonly nodeColumns = new Columns();
  private readonly edgeColumns = new Columns();
  private readonly notes: string[] = [];
  private weighted = false;
  private turned = 0;
  private rounded = 0;
  private firstRounded: string | null = null;
  private straight = 0;

  constructor(private directed: boolean) {}

  get nodeCount(): number {
    return this.keys.length;
  }

  get edgeCount(): number {
    return this.source.length;
  }

  has(key: string): boolean {
    return this.number.has(key);
  }

  setDirected(directed: boolean): void {
    this.directed = directed;
  }

  /** The number of a node, which is made when it is new. */
  node(key: string): number {
    let v = this.number.get(key);
    if (v === undefined) {
      v = this.keys.length;
      this.number.set(key, v);
      this.keys.push(key);
      this.labels.push('');
    }
    return v;
  }

  /** Says what a column of nodes or of ties holds, as the file or the researcher says it. */
  say(kind: 'node' | 'edge', name: string, type: ColumnType): void {
    (kind === 'node' ? this.nodeColumns : this.edgeColumns).say(name, type);
  }

  describeNode(key: string, label: string, attributes: Attributes): void {
    const v = this.node(key);
    if (label !== '') this.labels[v] = label;
    for (const [name, value] of Object.entries(attributes))
      if (value !== '') this.nodeColumns.set(v, name, value);
  }

  /**
   * Adds a tie.
   * @param weight as it is written; empty for 1
   * @param directed where the file says it of this tie alone
   * Throws BrokenNetwork when the weight is no positive number.
   */
  edge(
    source: string,
    target: string,
    weight: string,
    attributes: Attributes,
    row: number | null,
    directed?: boolean,
  ): void {
    const value = weight.trim() === '' ? 1 : Number(weight);
    if (!(value > 0))
      throw new BrokenNetwork(`The weight “${weight.slice(0, 40)}” is no positive number.`, row);
    if (!Number.isFinite(value))
      throw new BrokenNetwork(`The weight “${weight.slice(0, 40)}” is larger than a number can be.`, row);
    if (value > Number.MAX_SAFE_INTEGER) {
      this.rounded++;
      this.firstRounded ??= weight.trim().slice(0, 40);
    }
    if (weight.trim() !== '') this.weighted = true;
    if (directed !== undefined && directed !== this.directed) this.turned++;
    else this.straight++;
    const e = this.source.length;
    this.source.push(this.node(source));
    this.target.push(this.node(target));
    this.weight.push(value);
    for (const [name, cell] of Object.entries(attributes))
      if (cell !== '') this.edgeColumns.set(e, name, cell);
  }

  note(sentence: string): void {
    if (!this.notes.includes(sentence)) this.notes.push(sentence);
  }

  /** Repeated ties become one with the sum of their weights; of their other columns the first value stays. */
  finish(): FoundNetwork {
    if (this.keys.length === 0) throw new BrokenNetwork('The file names no node.');
    if (this.turned > 0 && this.straight === 0) this.directed = !this.directed;
    else if (this.turned > 0)
      this.note(
        `${this.turned} ties are ${this.directed ? 'undirected' : 'directed'} in the file, the others are not; all are taken as ${this.directed ? 'directed' : 'undirected'}.`,
      );
    const merged = this.mergeEdges();
    const note = (sentence: string): void => this.note(sentence);
    const rest = this.edgeColumns.finish(this.source.length, 'edge', note);
    this.noteRounded(merged.weight);
    const kept = (column: Float64Array | string[]): Float64Array | string[] =>
      column instanceof Float64Array
        ? Float64Array.from(merged.first, (e) => column[e])
        : Array.from(merged.first, (e) => column[e]);
    return {
      directed: this.directed,
      nodeCount: this.keys.length,
      nodes: {
        id: Uint32Array.from(this.keys, (_, v) => v),
        handle: this.keys,
        name: this.labels,
        ...this.nodeColumns.finish(this.keys.length, 'node', note),
      },
      edges: {
        source: Uint32Array.from(merged.first, (e) => merged.ends[2 * e]),
        target: Uint32Array.from(merged.first, (e) => merged.ends[2 * e + 1]),
        weight: Float64Array.from(merged.weight),
        ...Object.fromEntries(Object.entries(rest).map(([name, column]) => [name, kept(column)])),
      },
      weighted: this.weighted,
      notes: this.notes,
    };
  }

  /** Weights beyond 2^53 are not held to the last digit. */
  private noteRounded(weights: readonly number[]): void {
    const sums = weights.filter((weight) => weight > Number.MAX_SAFE_INTEGER).length;
    if (this.firstRounded !== null)
      this.note(
        `${this.rounded === 1 ? 'A weight' : `${this.rounded} weights`} above 9,007,199,254,740,991 cannot be held to the last digit and ${this.rounded === 1 ? 'was' : 'were'} rounded (the first is ${this.firstRounded}).`,
      );
    else if (sums > 0)
      this.note(`${sums} sums of repeated ties are above 9,007,199,254,740,991 and were rounded.`);
  }

  private mergeEdges(): { first: number[]; weight: number[]; ends: Uint32Array } {
    const place = new PairPlaces(this.source.length);
    const first: number[] = [];
    const weight: number[] = [];
    const ends = new Uint32Array(2 * this.source.length);
    const differing = new Set<string>();
    for (let e = 0; e < this.source.length; e++) {
      const turn = !this.directed && this.source[e] > this.target[e];
      ends[2 * e] = turn ? this.target[e] : this.source[e];
      ends[2 * e + 1] = turn ? this.source[e] : this.target[e];
      const at = place.of(e, ends, first);
      if (at === first.length) {
        first.push(e);
        weight.push(this.weight[e]);
      } else {
        weight[at] += this.weight[e];
        for (const name of this.edgeColumns.differing(first[at], e)) differing.add(name);
      }
    }
    const repeated = this.source.length - first.length;
    if (repeated > 0)
      this.note(
        `${counted(repeated, 'repeated tie')} ${repeated === 1 ? 'was' : 'were'} added to the first of their pair.`,
      );
    if (differing.size > 0)
      this.note(
        `Where repeated ties differ in ${[...differing].map((name) => `“${name}”`).join(', ')}, the first value was kept.`,
      );
    return { first, weight, ends };
  }
}
