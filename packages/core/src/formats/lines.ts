/** A line longer than this many characters is not kept in memory: it is skipped and reported. */
export const LONGEST_LINE = 8 * 1024 * 1024;

/** One line of a file; text is null when the line was too long to keep. */
export interface Line {
  readonly number: number;
  readonly text: string | null;
}

/** Cuts text that comes in pieces into lines at LF or CRLF, or at CR where the first line ends with one alone; numbers start at 1. Memory stays bounded whatever the line length. */
export class LineCutter {
  private rest = '';
  private tooLong = false;
  private number = 1;
  /** Whether lines end with CR alone; null while no end was seen. */
  private byReturns: boolean | null = null;
  private held = '';

  constructor(
    private readonly onLine: (line: Line) => void,
    private readonly longest = LONGEST_LINE,
  ) {}

  write(piece: string): void {
    // A piece that ends with the first CR says only with the next one whether LF follows.
    const given = this.held + piece;
    this.held = '';
    this.byReturns ??= endsWithReturns(given);
    if (this.byReturns === null && given.endsWith('\r')) {
      this.held = given;
      return;
    }
    const chunk = this.byReturns ? given.replaceAll('\r', '\n') : given;
    let from = 0;
    for (;;) {
      const at = chunk.indexOf('\n', from);
      if (at < 0) break;
      this.extend(chunk, from, at);
      this.finishLine();
      from = at + 1;
    }
    this.extend(chunk, from, chunk.length);
  }

  end(): void {
    if (this.held !== '') {
      this.extend(this.held, 0, this.held.length - 1);
      this.finishLine();
      this.held = '';
    }
    if (this.rest !== '' || this.tooLong) this.finishLine();
  }

  private extend(chunk: string, from: number, to: number): void {
    if (this.tooLong || from === to) return;
    if (this.rest.length + to - from > this.longest) {
      this.rest = '';
      this.tooLong = true;
      return;
    }
    this.rest = this.rest === '' ? chunk.slice(from, to) : this.rest + chunk.slice(from, to);
  }

  private finishLine(): void {
    const text = this.rest.endsWith('\r') ? this.rest.slice(0, -1) : this.rest;
    this.onLine({ number: this.number++, text: this.tooLong ? null : text });
    this.rest = '';
    this.tooLong = false;
  }
}

/** Whether the first line of a text ends with CR alone; null where no end is seen, or what follows it is not. */
function endsWithReturns(text: string): boolean | null {
  const at = text.search(/[\r\n]/);
  if (at < 0) return null;
  if (text[at] === '\n') return false;
  return at + 1 < text.length ? text[at + 1] !== '\n' : null;
}
