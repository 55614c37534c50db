import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  COLUMN_ROLES,
  DateForm,
  SHARED_ROLES,
  TextEncoding,
  type ColumnRole,
  type Material,
  type Preview,
  type Reading,
} from '@pebble/contract';
import { bytes, counted } from '../shared/words';

const ROLE_NAMES: Readonly<Record<ColumnRole, string>> = {
  id: 'message id',
  author: 'author handle',
  authorName: 'author name',
  text: 'text',
  subject: 'title or subject',
  time: 'time',
  kind: 'kind of message',
  parent: 'id of the answered message',
  parentAuthor: 'handle of the answered author',
  to: 'receivers',
  link: 'link to the message',
  language: 'language',
  source: 'from (one end of the tie)',
  target: 'to (the other end)',
  weight: 'weight of the tie',
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
const MATERIAL_NAMES: Readonly<Record<Material, string>> = {
  messages: 'messages, one a row',
  network: 'a finished network',
};
/** Roles that any number of columns can have. */
const SHARED: readonly ColumnRole[] = SHARED_ROLES;

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
  /** Files of this shape that wait, this one among them. */
  readonly alike = input(1);
  readonly readingChanged = output<Partial<Reading>>();
  readonly accepted = output<Reading>();
  readonly acceptedAll = output<Reading>();
  readonly dropped = output<void>();
  /** A name under which the reading is to be kept. */
  readonly saveAsked = output<string>();
  protected readonly roles = computed(() => COLUMN_ROLES[this.preview().reading.material]);
  protected readonly roleNames = ROLE_NAMES;
  protected readonly materialNames = MATERIAL_NAMES;
  protected readonly encodings = TextEncoding.options;
  protected readonly dateForms = DateForm.options;
  protected readonly dateNames = DATE_NAMES;
  protected readonly bytes = bytes;
  protected readonly counted = counted;
  protected readonly ready = computed(() => this.preview().missing.length === 0);
  protected readonly missing = computed(() =>
    this.preview().missing.map((role) => ROLE_NAMES[role as ColumnRole]),
  );
  protected readonly isDelimited = computed(() => ['csv', 'tsv'].includes(this.preview().reading.format));
  protected readonly hasEncoding = computed(
    () => !['xlsx', 'mbox', 'eml'].includes(this.preview().reading.format),
  );
  protected readonly hasTime = computed(
    () => !this.preview().fixed && this.preview().reading.columns.some(({ role }) => role === 'time'),
  );
  /** What will come of the file, where that can be told. */
  protected readonly outcome = computed(() => {
    const { network } = this.preview();
    if (!network) return null;
    const kind = `${network.directed ? 'directed' : 'undirected'}, ${network.weighted ? 'weighted' : 'each of weight 1'}`;
    const columns = [...network.nodeColumns, ...network.edgeColumns];
    const rest = columns.length > 0 ? ` Columns kept beside: ${columns.join(', ')}.` : '';
    return `${counted(network.nodes, 'node')} and ${counted(network.edges, 'tie')} (${kind}).${rest}`;
  });

  protected use(name: string): void {
    const saved = this.preview().saved.find((one) => one.name === name);
    if (saved) this.readingChanged.emit({ ...saved.reading, sheet: this.preview().reading.sheet });
  }

  protected setRole(index: number, role: ColumnRole): void {
    const columns = this.preview().reading.columns.map((column, i) => {
      if (i === index) return { ...column, role };
      return column.role === role && !SHARED.includes(role)
        ? { ...column, role: 'attribute' as const }
        : column;
    });
    this.readingChanged.emit({ ...this.preview().reading, columns });
  }

  protected change(part: Partial<Reading>): void {
    // Another encoding, delimiter, sheet or meaning gives other columns, which are guessed anew.
    const asksAnew = ['delimiter', 'encoding', 'sheet', 'material'].some((name) => name in part);
    const { columns, format, ...rest } = this.preview().reading;
    const keeps = asksAnew ? {} : { columns };
    this.readingChanged.emit({ ...rest, ...('material' in part ? {} : { format }), ...keeps, ...part });
  }
}
