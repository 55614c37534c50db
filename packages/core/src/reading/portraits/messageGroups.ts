/** To which groups the messages of a network belong. A message belongs to a group once. */
export class MessageGroups {
  /** Messages of each group. */
  readonly sizes: Float64Array;
  /** Messages of the network. */
  all = 0;
  /** By message: the only group it belongs to, or one of the two below. */
  private readonly only: Int32Array;
  private readonly several = new Map<number, number[]>();

  /** @param groups their number. @param lastMessage the highest number of a message. */
  constructor(
    readonly groups: number,
    lastMessage: number,
  ) {
    this.sizes = new Float64Array(groups);
    this.only = new Int32Array(lastMessage + 1).fill(OUTSIDE);
  }

  add(message: number, group: number): void {
    const before = this.only[message];
    if (before === group) return;
    if (before === OUTSIDE) {
      this.only[message] = group;
      this.all++;
    } else if (before === SEVERAL) {
      const groups = this.several.get(message)!;
      if (groups.includes(group)) return;
      groups.push(group);
    } else {
      this.several.set(message, [before, group]);
      this.only[message] = SEVERAL;
    }
    this.sizes[group]++;
  }

  /** The groups of a message; none where the network does not have it. */
  of(message: number): readonly number[] {
    const only = message < this.only.length ? this.only[message] : OUTSIDE;
    if (only === OUTSIDE) return NONE;
    return only === SEVERAL ? this.several.get(message)! : (ONE[only] ?? (ONE[only] = [only]));
  }

  has(message: number): boolean {
    return message < this.only.length && this.only[message] !== OUTSIDE;
  }

  /** The messages of a group, ascending. */
  messagesOf(group: number): number[] {
    const found: number[] = [];
    this.only.forEach((only, message) => {
      if (only === group || (only === SEVERAL && this.several.get(message)!.includes(group)))
        found.push(message);
    });
    return found;
  }
}

const OUTSIDE = -1;
const SEVERAL = -2;
const NONE: readonly number[] = [];
/** Lists of one group, so that asking makes none. */
const ONE: number[][] = [];
