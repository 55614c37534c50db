/** One item of a JSON list: its text, the line on which it begins, and the name of the list that it stands in. */
export interface JsonItem {
  readonly row: number;
  readonly text: string;
}

/** An item longer than this many characters is not kept in memory: it is left out and reported. */
const LONGEST_ITEM = 8 * 1024 * 1024;

/** Lists of a JSON document that hold its items, where the document is an object; the first of them that comes is taken. */
const LIST_NAMES = new Set([
  'orderedItems',
  'items',
  'data',
  'posts',
  'messages',
  'statuses',
  'comments',
  'results',
  'records',
  'rows',
  'edges',
  'links',
]);

/**
 * Cuts a JSON document (RFC 8259) that comes in pieces into the items of its list: of the document itself when it is a list,
 * otherwise of the first well-known list inside its outermost object or one object below. Only one item at a time is held.
 */
export class JsonItemCutter {
  private depth = 0;
  private inString = false;
  private escaped = false;
  private line = 1;
  /** Depth of the list whose items are cut; -1 until it was found. */
  private listDepth = -1;
  private done = false;
  private item = '';
  private itemRow = 0;
  private inItem = false;
  private tooLong = false;
  /** The last string that was read at a place where a name of a member can stand. */
  private name = '';
  private nameStart = -1;

  /** The line on which another document begins behind the first one; 0 where none does. */
  private another = 0;

  /**
   * @param onTooLong called with the line of an item that is too long to keep
   */
  constructor(
    private readonly onItem: (item: JsonItem) => void,
    private readonly onTooLong: (row: number) => void = () => undefined,
  ) {}

  /** The line on which another JSON document begins, which is not read; 0 where none does. */
  get secondDocument(): number {
    return this.another;
  }

  /** The line to which it has come. */
  get lastLine(): number {
    return this.line;
  }

  /** Whether a list was found. */
  get found(): boolean {
    return this.listDepth >= 0;
  }

  write(chunk: string): void {
    let from = 0;
    for (let i = 0; i < chunk.length; i++) {
      if (this.inString) {
        const end = this.stringEnd(chunk, i);
        if (end < 0) break;
        this.inString = false;
        if (this.nameStart >= 0) {
          this.name += chunk.slice(this.nameStart, end);
          this.nameStart = -1;
        }
        i = end;
        continue;
      }
      const code = chunk.charCodeAt(i);
      if (code === 10) this.line++;
      switch (code) {
        case 34: // "
          this.inString = true;
          if (this.listDepth < 0) {
            this.name = '';
            this.nameStart = i + 1;
          }
          if (this.isBetweenItems()) from = this.beginItem(i);
          break;
        case 123: // {
        case 91: // [
          if (this.isBetweenItems()) from = this.beginItem(i);
          if (this.done && this.depth === 0 && this.another === 0) this.another = this.line;
          this.depth++;
          if (code === 91 && this.listDepth < 0 && this.isList()) this.listDepth = this.depth;
          break;
        case 125: // }
        case 93: // ]
          if (this.inItem && this.depth === this.listDepth && code === 93) this.endItem(chunk.slice(from, i));
          if (code === 93 && this.depth === this.listDepth) this.done = true;
          this.depth--;
          if (this.inItem && this.depth === this.listDepth) {
            this.endItem(chunk.slice(from, i + 1));
          }
          break;
        case 44: // ,
          if (this.inItem && this.depth === this.listDepth) this.endItem(chunk.slice(from, i));
          break;
        case 32:
        case 9:
        case 10:
        case 13:
          break;
        default:
          if (this.isBetweenItems()) from = this.beginItem(i);
      }
    }
    if (this.inItem) this.keep(chunk.slice(from));
    if (this.nameStart >= 0) {
      this.name += chunk.slice(this.nameStart);
      this.nameStart = 0;
    }
  }

  /**
   * Where the string that is open at `from` ends, or -1 when that is not in this piece. Most of a document stands in strings, so this
   * jumps from quotation mark to quotation mark.
   */
  private stringEnd(chunk: string, from: number): number {
    let start = from;
    if (this.escaped) {
      this.escaped = false;
      start++;
    }
    for (let at = start; ;) {
      const quote = chunk.indexOf('"', at);
      const end = quote < 0 ? chunk.length : quote;
      let before = end;
      while (before > start && chunk.charCodeAt(before - 1) === 92) before--;
      const isEscaped = (end - before) % 2 === 1;
      if (quote < 0) {
        this.escaped = isEscaped;
        return -1;
      }
      if (!isEscaped) return quote;
      at = quote + 1;
    }
  }

  /** Throws when the document ends inside its list. */
  end(): void {
    if (this.inItem || (this.found && !this.done))
      throw new Error(`The file ends in the middle of its list, on line ${this.line}.`);
  }

  private isBetweenItems(): boolean {
    return !this.inItem && !this.done && this.depth === this.listDepth;
  }

  private isList(): boolean {
    if (this.done) return false;
    return this.depth === 1 || (this.depth <= 3 && LIST_NAMES.has(this.name));
  }

  private beginItem(at: number): number {
    this.inItem = true;
    this.item = '';
    this.tooLong = false;
    this.itemRow = this.line;
    return at;
  }

  private keep(part: string): void {
    if (this.tooLong) return;
    if (this.item.length + part.length > LONGEST_ITEM) {
      this.tooLong = true;
      this.item = '';
    } else {
      this.item += part;
    }
  }

  private endItem(part: string): void {
    this.keep(part);
    this.inItem = false;
    if (this.tooLong) this.onTooLong(this.itemRow);
    else this.onItem({ row: this.itemRow, text: this.item });
    this.item = '';
  }
}

/**
 * Ends a document: what came before an end in the middle of its list is kept, and a document behind the first one is not read; both are told
 * with their line. Throws when the document ends before it has a list.
 */
export function endDocument(cutter: JsonItemCutter, tell: (row: number, reason: string) => void): void {
  try {
    cutter.end();
  } catch (error) {
    if (!cutter.found) throw error;
    tell(cutter.lastLine, 'The file ends in the middle of its list; what stands before is kept.');
  }
  if (cutter.secondDocument > 0)
    tell(cutter.secondDocument, 'Another JSON document begins here; only the first one of a file is read.');
}
