import type { ImportMapping, SkippedRow, TwoModeMapping } from '@pebble/contract';
import type { FileRecord } from '../record';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

const YES = new Set(['yes', 'y', 'true', 'x', '✓', '✔', 'oui', 'sí', 'si', 'ja', 'present']);
const NO = new Set(['no', 'n', 'false', '-', '–', 'non', 'nein', 'absent']);

/** What a cell of a matrix says: yes and no in any case are 1 and 0, counts stay; null where it is none of these. */
export function cellWeight(cell: string): number | null {
  const word = cell.trim().toLowerCase();
  if (YES.has(word)) return 1;
  if (NO.has(word)) return 0;
  if (word === '') return null;
  const value = Number(word);
  return Number.isFinite(value) && value >= 0 ? value : null;
}

/**
 * Builds a two-mode network: people (rows) tied to events or other things (columns, or values of cells). Ties go from the person to the
 * thing, so people have in-degree 0 (common practice). The node column "mode" says which of the two a node is.
 */
export class TwoModeBuilder {
  private readonly people = new Map<string, number>();
  private readonly things = new Map<string, number>();
  /** Weight by person and thing. */
  private readonly ties = new Map<number, number>();
  private readonly missing = new Map<number, number>();
  private repeated = 0;
  private missingCells = 0;
  private readonly reading: TwoModeMapping;

  constructor(
    reading: ImportMapping,
    private readonly mostThings = 1_000_000,
  ) {
    this.reading = reading.twoMode;
  }

  get size(): number {
    return this.people.size;
  }

  person(name: string): number {
    return numberOf(this.people, name);
  }

  thing(name: string): number {
    if (!this.things.has(name) && this.things.size >= this.mostThings)
      throw new BrokenNetwork(`There are more than ${this.mostThings} different things.`);
    return numberOf(this.things, name);
  }

  tie(person: number, thing: number, weight: number): void {
    if (weight === 0) return;
    const pair = person * this.mostThings + thing;
    const before = this.ties.get(pair);
    if (before !== undefined) this.repeated++;
    if (before === undefined) this.ties.set(pair, weight);
    else if (this.reading.repeats === 'sum') this.ties.set(pair, before + weight);
  }

  leaveOpen(person: number): void {
    this.missingCells++;
    this.missing.set(person, (this.missing.get(person) ?? 0) + 1);
  }

  finish(): FoundNetwork {
    const builder = new NetworkBuilder(true);
    const people = [...this.people.keys()];
    for (const name of people)
      builder.describeNode(name, '', { mode: 'person', ...this.missingOf(this.people.get(name)!) });
    // A thing that is called like a person is another node.
    const things = [...this.things.keys()].map((name) => (this.people.has(name) ? `${name} (thing)` : name));
    for (const name of things) builder.describeNode(name, '', { mode: 'thing' });
    for (const [pair, weight] of this.ties)
      builder.edge(
        people[Math.floor(pair / this.mostThings)],
        things[pair % this.mostThings],
        weight === 1 ? '' : String(weight),
        {},
        null,
      );
    builder.note(`${people.length} people and ${things.length} things; ties go from people to things.`);
    if (this.repeated > 0)
      builder.note(
        this.reading.repeats === 'sum'
          ? `${this.repeated} repeated pairs were added up.`
          : `${this.repeated} repeated pairs were kept once.`,
      );
    if (this.missingCells > 0)
      builder.note(
        `${this.missingCells} empty cells count as missing, not as no; the column “missing” counts them for each person.`,
      );
    return builder.finish();
  }

  private missingOf(person: number): Record<string, string> {
    return this.missingCells > 0 ? { missing: String(this.missing.get(person) ?? 0) } : {};
  }
}

/** A function that adds a row of two-mode data, or says why it cannot. */
export function takeTwoMode(
  reading: ImportMapping,
  builder: TwoModeBuilder,
): (record: FileRecord) => SkippedRow | null {
  const { columns, twoMode } = reading;
  const at = (role: string): number => columns.findIndex((column) => column.role === role);
  const source = at('source');
  const personOf = ({ row, values }: FileRecord): number | SkippedRow => {
    const name = values[source].trim();
    return name === ''
      ? { row, field: columns[source].name, reason: 'The row names nobody.' }
      : builder.person(name);
  };
  if (twoMode.layout === 'matrix') {
    const names = columns.map(({ name }) => name.trim());
    const twice = names.find((name, i) => names.indexOf(name) < i);
    if (twice !== undefined)
      throw new BrokenNetwork(`The heading “${twice}” stands twice in the first row.`, 1);
    return takeMatrixRow(reading, builder, personOf);
  }
  const target = at('target');
  const weight = at('weight');
  if (target < 0) throw new BrokenNetwork('No column was named as the thing.', 1);
  return (record) => {
    const person = personOf(record);
    if (typeof person === 'object') return person;
    const cell = record.values[target];
    const things = (twoMode.layout === 'cells' ? cell.split(twoMode.between) : [cell]).map((one) =>
      one.trim(),
    );
    const written = weight < 0 ? '' : record.values[weight].trim();
    const value = written === '' ? 1 : cellWeight(written);
    if (value === null)
      return {
        row: record.row,
        field: columns[weight].name,
        reason: `“${written.slice(0, 40)}” is no weight.`,
      };
    for (const thing of things) if (thing !== '') builder.tie(person, builder.thing(thing), value);
    return null;
  };
}

function takeMatrixRow(
  { columns, twoMode }: ImportMapping,
  builder: TwoModeBuilder,
  personOf: (record: FileRecord) => number | SkippedRow,
): (record: FileRecord) => SkippedRow | null {
  const things = columns.flatMap(({ name, role }, i) =>
    role === 'thing' ? [{ name, i, thing: builder.thing(name.trim()) }] : [],
  );
  return (record) => {
    const { row, values } = record;
    // Nothing of a row with a cell that cannot be read is taken.
    const bad = things.find(({ i }) => values[i].trim() !== '' && cellWeight(values[i]) === null);
    if (bad)
      return {
        row,
        field: bad.name,
        reason: `“${values[bad.i].slice(0, 40)}” is neither yes nor no nor a count.`,
      };
    const person = personOf(record);
    if (typeof person === 'object') return person;
    for (const { i, thing } of things) {
      const weight = cellWeight(values[i]);
      if (weight !== null) builder.tie(person, thing, weight);
      else if (twoMode.empty === 'missing') builder.leaveOpen(person);
    }
    return null;
  };
}

function numberOf(names: Map<string, number>, name: string): number {
  const known = names.get(name);
  if (known !== undefined) return known;
  names.set(name, names.size);
  return names.size - 1;
}
