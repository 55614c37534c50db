/** A file that cannot be read at all; the message says why and what to do. */
export class UnreadableFile extends Error {
  constructor(
    message: string,
    readonly row: number | null = null,
    /** Its name, where it came among others. */
    readonly file: string | null = null,
  ) {
    super(message);
  }
}
