import type { ImportReport, SkippedRow } from '@pebble/contract';
import { formatCount, safeCsvRow } from '@pebble/core';

/** Skipped rows that are listed one by one; beyond this they are counted only, and the report says so. */
const MOST_LISTED = 100_000;

/** Collects the rows that an import leaves out: counts by reason, and a list to download. */
export class SkippedRows {
  total = 0;
  private readonly reasons = new Map<string, number>();
  private first: SkippedRow | null = null;

  csv = safeCsvRow(['line', 'field', 'reason', 'file']);

  add(row: SkippedRow): void {
    this.total++;
    this.first ??= row;
    if (this.total <= MOST_LISTED) this.csv += safeCsvRow([row.row, row.field, row.reason, row.file ?? '']);
    const kind = row.reason
      .replace(/[“"].*[”"]/, '')
      .replace(/\d+/g, '…')
      .replace(/ {2,}/g, ' ')
      .replace(/[:.]\s*.*$/, '')
      .trim();
    this.reasons.set(kind, (this.reasons.get(kind) ?? 0) + 1);
  }

  byReason(): ImportReport['skippedByReason'] {
    return [...this.reasons].map(([reason, rows]) => ({ reason, rows })).sort((a, b) => b.rows - a.rows);
  }

  firstReason(): string {
    return this.first ? `Line ${this.first.row}: ${this.first.reason}` : 'It has a header and no rows.';
  }

  /** What the report has to say about the list. */
  notes(): string[] {
    return this.total > MOST_LISTED
      ? [`Only the first ${formatCount(MOST_LISTED)} skipped rows are listed.`]
      : [];
  }
}
