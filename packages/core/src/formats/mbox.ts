import { LineCutter } from './lines';

/** A message as it stands in a mailbox file: its bytes as a string of characters 0 to 255, and the line of its "From " line. */
export interface RawMail {
  readonly row: number;
  readonly bytes: string;
}

/** A message of more bytes than this is not kept in memory: it is left out and reported. */
const LARGEST_MAIL = 64 * 1024 * 1024;

/** RFC 4155: "From ", an address, and a date of the C library with the year at its end, perhaps with a zone. */
const FROM_LINE = /^From \S+.*\b\d{1,2}:\d{2}(?::\d{2})?\b.*\b\d{4}\b/;
/** Characters of such a line at most: what is longer is text, and would take long to try. */
const LONGEST_FROM = 1000;
const QUOTED_FROM = /^>+From /;

/** Whether a line may begin a message: "From ", an address and a date. */
function isFromLine(line: string): boolean {
  return line.length <= LONGEST_FROM && FROM_LINE.test(line);
}

/**
 * Cuts a mailbox file (mbox, RFC 4155) into messages. A "From " line begins a message only after a blank line or at the start of
 * the file, and only when it ends like a date, so that unquoted ones in texts do no harm. Lines quoted as ">From " or
 * ">>From " lose one mark, as most writers of such files put one there.
 */
export class MboxCutter {
  private readonly cutter = new LineCutter((line) => this.addLine(line.number, line.text));
  private lines: string[] = [];
  private size = 0;
  private row = 0;
  private afterBlank = true;
  private begun = false;

  /** @param onTooLarge called with the line of a message that is too large to keep */
  constructor(
    private readonly onMail: (mail: RawMail) => void,
    private readonly onTooLarge: (row: number) => void = () => undefined,
  ) {}

  /** @param chunk bytes as characters 0 to 255 */
  write(chunk: string): void {
    this.cutter.write(chunk);
  }

  end(): void {
    this.cutter.end();
    this.finish();
  }

  private addLine(number: number, text: string | null): void {
    if (text !== null && this.afterBlank && isFromLine(text)) {
      this.finish();
      this.begun = true;
      this.row = number;
      this.afterBlank = false;
      return;
    }
    this.afterBlank = text === '';
    if (!this.begun) return;
    // A line that is too long for a line of text is left out; it can only be a part of an attachment.
    if (text === null) return;
    this.size += text.length + 2;
    if (this.size <= LARGEST_MAIL) this.lines.push(QUOTED_FROM.test(text) ? text.slice(1) : text);
    else this.lines = [];
  }

  private finish(): void {
    if (!this.begun) return;
    if (this.size > LARGEST_MAIL) this.onTooLarge(this.row);
    else {
      if (this.lines.at(-1) === '') this.lines.pop();
      this.onMail({ row: this.row, bytes: `${this.lines.join('\r\n')}\r\n` });
    }
    this.lines = [];
    this.size = 0;
    this.begun = false;
  }
}
