/**
 * Where the nodes of a network stand, by what they are called: handles first, labels where no handle fits; without "@", case and spaces at
 * the ends.
 */
export class NodePlaces {
  private readonly place = new Map<string, number>();

  constructor(handles: readonly string[], names: readonly string[]) {
    names.forEach((name, i) => name !== '' && this.place.set(keyOf(name), i));
    handles.forEach((handle, i) => this.place.set(keyOf(handle), i));
  }

  /** The place of a node, undefined where none is called so. */
  of(name: string): number | undefined {
    return this.place.get(keyOf(name));
  }
}

function keyOf(name: string): string {
  return name.trim().replace(/^@/, '').normalize('NFKC').toLowerCase();
}
