/** One record of a table-like file: a value for each column, and named values beyond the columns. */
export interface FileRecord {
  /** Line of the file on which the record begins; the first is 1. */
  readonly row: number;
  readonly values: readonly string[];
  /** Named values of the record that no column was known for. */
  readonly extra: Readonly<Record<string, string>> | null;
}

/** Takes text piece by piece and hands on records; what cannot be read is handed to onSkip with its line. */
export interface RecordReader {
  write(chunk: string): void;
  end(): void;
}

export interface RecordSink {
  onRecord(record: FileRecord): void;
  onSkip(row: number, field: string | null, reason: string): void;
}
