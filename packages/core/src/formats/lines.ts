/** A line longer than this many characters is not kept in memory: it is skipped and reported. */
export const LONGEST_LINE = 8 * 1024 * 1024;

/** One line of a file; text is null when the line was too long to keep. */
export interface Line {
  readonly number: number;
  readonly text: string | null;
}

/** Cuts text that comes in pieces into lines at LF or CRLF; numbers start at 1. Memory stays bounded whatever the line length. */
export class LineCutter {
  private rest = '';
  private tooLong = false;
  private number = 1;

  constructor(
    private readonly onLine: (line: Line) => void,
    private readonly longest = LONGEST_LINE,
  ) {}

  write(chunk: string): void {
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
