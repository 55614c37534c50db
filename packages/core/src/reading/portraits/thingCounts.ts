import type { Occurrences } from '../../weaves/common/occurrences';
import type { Beside } from './keyness';
import type { MessageGroups } from './messageGroups';

interface ThingRows {
  readonly thing: number;
  /** Places in the occurrences. */
  readonly rows: Uint32Array;
}

/** The occurrences within the network, thing by thing. */
export function* byThing(
  { count, thing, message }: Occurrences,
  groups: MessageGroups,
): Generator<ThingRows> {
  const place = new Map<number, number>();
  const things: number[] = [];
  const sizes: number[] = [];
  const of = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++) {
    if (!groups.has(message[i])) continue;
    let at = place.get(thing[i]);
    if (at === undefined) {
      place.set(thing[i], (at = things.push(thing[i]) - 1));
      sizes.push(0);
    }
    of[i] = at;
    sizes[at]++;
  }
  const start = new Uint32Array(things.length + 1);
  sizes.forEach((size, t) => (start[t + 1] = start[t] + size));
  const next = start.slice(0, -1);
  const rows = new Uint32Array(start[things.length]);
  for (let i = 0; i < count; i++) if (of[i] >= 0) rows[next[of[i]]++] = i;
  for (let t = 0; t < things.length; t++)
    yield { thing: things[t], rows: rows.subarray(start[t], start[t + 1]) };
}

/** A thing that stands nowhere in a group is missing from it where so many messages would have it by its share of all. */
const MISSED_FROM = 5;

/** In how many messages of each group, by how many authors, a thing stands; of one thing at a time. */
export class ThingCounts {
  readonly messages: Float64Array;
  readonly authors: Float64Array;
  /** Groups in which it stands. */
  touched: number[] = [];
  /** Messages and authors of the network with it. */
  all = 0;
  allAuthors = 0;

  /** By message and by author: the round in which it was seen last, so that nothing has to be cleared between things. */
  private readonly messageSeen: Uint32Array;
  private readonly authorSeen: Uint32Array;
  /** By author: the group in which it was seen first in this round; of further ones a set knows. */
  private readonly authorGroup: Uint32Array;
  private round = 0;

  constructor(
    private readonly groups: MessageGroups,
    private readonly occurrences: Occurrences,
  ) {
    this.messages = new Float64Array(groups.groups);
    this.authors = new Float64Array(groups.groups);
    this.messageSeen = new Uint32Array(highest(occurrences.message, occurrences.count) + 1);
    const authors = highest(occurrences.author, occurrences.count) + 1;
    this.authorSeen = new Uint32Array(authors);
    this.authorGroup = new Uint32Array(authors);
  }

  count(rows: Uint32Array): void {
    const { message, author } = this.occurrences;
    for (const g of this.touched) this.messages[g] = this.authors[g] = 0;
    this.touched = [];
    this.all = this.allAuthors = 0;
    this.round++;
    const further = new Set<number>();
    for (const row of rows) {
      const [m, who] = [message[row], author[row]];
      if (this.messageSeen[m] === this.round) continue;
      this.messageSeen[m] = this.round;
      this.all++;
      for (const g of this.groups.of(m)) {
        if (this.messages[g]++ === 0) this.touched.push(g);
        if (this.authorSeen[who] !== this.round) {
          this.authorSeen[who] = this.round;
          this.authorGroup[who] = g;
          this.allAuthors++;
          this.authors[g]++;
        } else if (this.authorGroup[who] !== g) {
          const pair = who * this.groups.groups + g;
          if (further.has(pair)) continue;
          further.add(pair);
          this.authors[g]++;
        }
      }
    }
  }

  /** Groups of which it says something that it stands there, or does not. */
  toldOf(): number[] {
    const { sizes, all } = this.groups;
    const told = [...this.touched];
    sizes.forEach((size, g) => {
      if (this.messages[g] === 0 && (this.all * size) / all >= MISSED_FROM) told.push(g);
    });
    return told;
  }

  beside(g: number): Beside {
    const { sizes, all } = this.groups;
    return {
      here: this.messages[g],
      ofHere: sizes[g],
      elsewhere: this.all - this.messages[g],
      ofElsewhere: all - sizes[g],
    };
  }
}

function highest(numbers: ArrayLike<number>, count: number): number {
  let most = 0;
  for (let i = 0; i < count; i++) if (numbers[i] > most) most = numbers[i];
  return most;
}
