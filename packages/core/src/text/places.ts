import { nameKey } from './tokens';

/** At which word of a text each of its places lies: words are what stands between spaces, counted from 0. */
export class WordPlaces {
  private readonly starts: readonly number[];
  /** Words without their marks, with the word of the text in which each stands: a dash may join two. */
  private readonly keys: readonly { readonly key: string; readonly at: number }[];

  constructor(text: string) {
    const words = [...text.matchAll(/\S+/gu)];
    this.starts = words.map(({ index }) => index);
    this.keys = words.flatMap(([word], at) =>
      nameKey(word)
        .split(' ')
        .filter((key) => key !== '')
        .map((key) => ({ key: key.replace(/'s$/, ''), at })),
    );
  }

  /** The word in which a place of the text lies. @param offset UTF-16 code units from the beginning */
  of(offset: number): number {
    let low = 0;
    let high = this.starts.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.starts[middle] <= offset) low = middle + 1;
      else high = middle;
    }
    return Math.max(0, low - 1);
  }

  /** The words at which a name begins; its last word may go on, as names found by their beginnings do. @param key of the name */
  ofName(key: string): number[] {
    const parts = key.split(' ');
    const last = parts.length - 1;
    const stands = (from: number): boolean =>
      parts.every((part, i) => {
        const own = this.keys[from + i]?.key;
        return i === last ? own?.startsWith(part) : own === part;
      });
    return [...this.keys.keys()].filter(stands).map((from) => this.keys[from].at);
  }
}
