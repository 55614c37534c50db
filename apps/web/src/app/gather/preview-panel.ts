import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import {
  COLUMN_ROLES,
  DateForm,
  MANY_ROLES,
  SOURCE_MATERIALS,
  TextEncoding,
  type ColumnRole,
  type Material,
  type Network,
  type Preview,
  type ImportMapping,
  type TwoModeMapping,
} from '@pebble/contract';
import { bytes, counted } from '../shared/words';
import { Busy } from '../shared/busy';
import { draftOf } from '../shared/draft';

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
  item: 'id of the item (video, page) it stands under',
  itemTitle: 'title of the item',
  follower: 'who follows',
  followed: 'who is followed',
  followers: 'number of followers',
  following: 'number of followed accounts',
  posts: 'number of posts',
  location: 'location',
  description: 'description',
  joined: 'date of joining',
  thing: 'a thing (its heading names it)',
  node: 'node',
  group: 'group',
  source: 'from (one end of the tie)',
  target: 'to (the other end)',
  weight: 'weight of the tie',
  number: 'number',
  attribute: 'kept as attribute',
  'leave out': 'left out',
};
/** Words for roles that mean something of their own in a material. */
const OTHER_NAMES: Partial<Record<Material, Partial<Record<ColumnRole, string>>>> = {
  items: {
    id: 'id of the item',
    subject: 'title',
    author: 'channel or page',
    authorName: 'name of the channel',
    text: 'description',
  },
  follows: { authorName: 'name of the follower' },
  accounts: { author: 'handle', authorName: 'name' },
  nodes: { node: 'node, as the ties call it', authorName: 'label' },
  'two-mode': { source: 'person (or other row)', target: 'thing, or several in one cell' },
};
const DATE_NAMES: Readonly<Record<DateForm, string>> = {
  iso: '2026-03-31 14:05 (RFC 3339)',
  'year-month-day': 'year, month, day',
  'day-month-year': '31/03/2026 (day first)',
  'month-day-year': '03/31/2026 (month first)',
  words: '31 March 2026',
  'unix-seconds': 'seconds since 1970',
  'unix-milliseconds': 'milliseconds since 1970',
  'spreadsheet-days': 'days since 30 December 1899',
};
const MATERIAL_NAMES: Readonly<Record<Material, string>> = {
  messages: 'messages, one a row',
  items: 'videos, pages or other items, one a row',
  follows: 'followers of accounts',
  accounts: 'details of accounts',
  network: 'ties of a finished network',
  nodes: 'nodes of a network, one a row',
  'two-mode': 'people by events or things',
  groups: 'groups of nodes',
};

/** A reading that was agreed to. */
export interface Accepted {
  readonly reading: ImportMapping;
  /** The network whose nodes it is about. */
  readonly network?: string;
  /** Name of the column that groups become. */
  readonly column?: string;
}

/** How a file will be read: its columns, to be corrected, with its first rows. */
@Component({
  selector: 'pt-preview-panel',
  imports: [MatTooltip, MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './preview-panel.html',
  styleUrl: './preview-panel.scss',
})
export class PreviewPanel {
  readonly preview = input.required<Preview>();
  readonly busy = input(false);
  /** Files of this shape that wait, this one among them. */
  readonly alike = input(1);
  readonly readingChanged = output<Partial<ImportMapping>>();
  readonly accepted = output<Accepted>();
  /** Networks of the study, to which groups can be given. */
  readonly networks = input<readonly Network[]>([]);
  /** Every waiting file of this shape, each as a source of its own or all as one. */
  readonly acceptedAll = output<{ reading: ImportMapping; asOne: boolean }>();
  protected readonly becomesSource = computed(() =>
    SOURCE_MATERIALS.includes(this.preview().reading.material),
  );
  readonly dropped = output<void>();
  /** A name under which the reading is to be kept. */
  readonly saveAsked = output<string>();
  protected readonly roles = computed(() => COLUMN_ROLES[this.preview().reading.material]);
  protected readonly roleNames = computed(() => ({
    ...ROLE_NAMES,
    ...OTHER_NAMES[this.preview().reading.material],
  }));
  /** Name of the column that groups become, and the network whose nodes the file is about. */
  protected readonly groupsName = signal('group');
  private readonly newest = computed(() => this.networks()[0]?.id ?? null);
  protected readonly network = draftOf(() => this.newest());
  protected readonly materialNames = MATERIAL_NAMES;
  protected readonly encodings = TextEncoding.options;
  protected readonly dateForms = DateForm.options;
  protected readonly dateNames = DATE_NAMES;
  protected readonly bytes = bytes;
  protected readonly counted = counted;
  protected readonly isGroups = computed(() => this.preview().reading.material === 'groups');
  /** Whether the file tells of nodes of a network that is there. */
  protected readonly isOfNodes = computed(() =>
    ['groups', 'nodes'].includes(this.preview().reading.material),
  );
  protected readonly ready = computed(
    () =>
      this.preview().missing.length === 0 &&
      (!this.isOfNodes() || this.network() !== null) &&
      (!this.isGroups() || this.groupsName().trim() !== ''),
  );
  protected readonly needsFollowed = computed(
    () =>
      this.preview().reading.material === 'follows' &&
      !this.preview().reading.columns.some(({ role }) => role === 'followed'),
  );
  protected readonly missing = computed(() =>
    this.preview().missing.map((role) => this.roleNames()[role as ColumnRole]),
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
    const { network, outcome } = this.preview();
    if (!network) return outcome;
    const kind = `${network.directed ? 'directed' : 'undirected'}, ${network.weighted ? 'weighted' : 'each of weight 1'}`;
    const columns = [...network.nodeColumns, ...network.edgeColumns];
    const rest = columns.length > 0 ? ` Columns kept beside: ${columns.join(', ')}.` : '';
    return `${counted(network.nodes, 'node')} and ${counted(network.edges, 'tie')} (${kind}).${rest}`;
  });

  protected accept(): void {
    const { reading } = this.preview();
    const network = this.network();
    this.accepted.emit({
      reading,
      ...(this.isOfNodes() && network !== null ? { network } : {}),
      ...(this.isGroups() ? { column: this.groupsName().trim() } : {}),
    });
  }

  protected changeTwoMode(part: Partial<TwoModeMapping>): void {
    this.change({ twoMode: { ...this.preview().reading.twoMode, ...part } });
  }

  /** Why a cell of the shown rows cannot be read; null for all others. */
  protected problemAt(row: number, column: number): string | null {
    const { lines, problems, reading } = this.preview();
    const found = problems.find(
      (one) => one.row === lines[row] && one.field === reading.columns[column]?.name,
    );
    return found?.reason ?? null;
  }

  protected use(name: string): void {
    const saved = this.preview().saved.find((one) => one.name === name);
    if (saved) this.readingChanged.emit({ ...saved.reading, sheet: this.preview().reading.sheet });
  }

  protected setRole(index: number, role: ColumnRole): void {
    const columns = this.preview().reading.columns.map((column, i) => {
      if (i === index) return { ...column, role };
      return column.role === role && !MANY_ROLES.includes(role)
        ? { ...column, role: 'attribute' as const }
        : column;
    });
    this.readingChanged.emit({ ...this.preview().reading, columns });
  }

  protected change(part: Partial<ImportMapping>): void {
    // Another encoding, delimiter, sheet or meaning gives other columns, which are guessed anew.
    const asksAnew = ['delimiter', 'encoding', 'sheet', 'material'].some((name) => name in part);
    const { columns, format, ...rest } = this.preview().reading;
    const keeps = asksAnew ? {} : { columns };
    // What is chosen for one meaning says nothing for another.
    const { twoMode, ...others } = rest;
    const kept = 'material' in part ? others : { ...others, format, twoMode };
    this.readingChanged.emit({ ...kept, ...keeps, ...part });
  }
}
