import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ColumnRole, DateForm, TextEncoding, type Preview, type Reading } from '@pebble/contract';
import { bytes } from '../shared/words';

const ROLE_NAMES: Readonly<Record<ColumnRole, string>> = {
  id: 'message id',
  author: 'author handle',
  authorName: 'author name',
  text: 'text',
  time: 'time',
  kind: 'kind of message',
  parent: 'id of the answered message',
  parentAuthor: 'handle of the answered author',
  link: 'link to the message',
  number: 'number',
  attribute: 'kept as attribute',
  'leave out': 'left out',
};
const DATE_NAMES: Readonly<Record<DateForm, string>> = {
  iso: '2026-03-31 14:05 (RFC 3339)',
  'year-month-day': 'year, month, day',
  'day-month-year': '31/03/2026 (day first)',
  'month-day-year': '03/31/2026 (month first)',
  words: '31 March 2026',
  'unix-seconds': 'seconds since 1970',
  'unix-milliseconds': 'milliseconds since 1970',
};
/** Roles that only one column can have. */
const SINGLE: readonly ColumnRole[] = [
  'id',
  'author',
  'authorName',
  'text',
  'time',
  'kind',
  'parent',
  'parentAuthor',
  'link',
];

/** How a file will be read: its columns, to be corrected, with its first rows. */
@Component({
  selector: 'pt-preview-panel',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './preview-panel.html',
  styleUrl: './preview-panel.scss',
})
export class PreviewPanel {
  readonly preview = input.required<Preview>();
  readonly busy = input(false);
  readonly readingChanged = output<Partial<Reading>>();
  readonly accepted = output<Reading>();
  readonly dropped = output<void>();
  protected readonly roles = ColumnRole.options;
  protected readonly roleNames = ROLE_NAMES;
  protected readonly encodings = TextEncoding.options;
  protected readonly dateForms = DateForm.options;
  protected readonly dateNames = DATE_NAMES;
  protected readonly bytes = bytes;
  protected readonly ready = computed(() => this.preview().missing.length === 0);
  protected readonly hasTime = computed(() =>
    this.preview().reading.columns.some(({ role }) => role === 'time'),
  );

  protected setRole(index: number, role: ColumnRole): void {
    const columns = this.preview().reading.columns.map((column, i) => {
      if (i === index) return { ...column, role };
      return column.role === role && SINGLE.includes(role)
        ? { ...column, role: 'attribute' as const }
        : column;
    });
    this.readingChanged.emit({ ...this.preview().reading, columns });
  }

  protected change(part: Partial<Reading>): void {
    // Another encoding or delimiter gives other columns, which are guessed anew.
    const keepsColumns = !('delimiter' in part || 'encoding' in part);
    const { columns, ...rest } = this.preview().reading;
    this.readingChanged.emit({ ...rest, ...(keepsColumns ? { columns } : {}), ...part });
  }
}
