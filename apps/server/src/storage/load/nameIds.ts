import type { NewName } from '../../intake/batch';

/**
 * The ids of named things (accounts, hashtags): those that the study has, and those that a file brings under numbers of its own, in
 * the order in which it names them.
 */
export class NameIds {
  private readonly byKey = new Map<string, number>();
  private readonly names: NewName[] = [];
  /** By number of the file; 0 until it is needed. */
  private readonly ids: number[] = [];
  private next: number;

  /**
   * @param firstNew the id of the first thing that is not there yet
   * @param store keeps a thing that is needed for the first time
   */
  constructor(
    private readonly firstNew: number,
    private readonly store: (id: number, name: NewName) => void,
  ) {
    this.next = firstNew;
  }

  /** Things of before this load that it names too. */
  get known(): number {
    return this.ids.filter((id) => id > 0 && id < this.firstNew).length;
  }

  know(key: string, id: number): void {
    this.byKey.set(key, id);
  }

  expect(names: readonly NewName[]): void {
    for (const name of names) {
      this.names.push(name);
      this.ids.push(0);
    }
  }

  idOf(number: number): number {
    const id = this.ids[number];
    return id !== 0 ? id : this.find(number);
  }

  /** The id of a thing that is there or was needed before; 0 for any other. */
  idIfKnown(number: number): number {
    return this.ids[number] || (this.byKey.get(this.names[number].key) ?? 0);
  }

  private find(number: number): number {
    const name = this.names[number];
    const known = this.byKey.get(name.key);
    const id = known ?? this.next++;
    this.ids[number] = id;
    if (known === undefined) {
      this.byKey.set(name.key, id);
      this.store(id, name);
    }
    return id;
  }
}
