import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatDialogActions, MatDialogContent, MatDialogRef, MatDialogTitle } from '@angular/material/dialog';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatTooltip } from '@angular/material/tooltip';
import type { Network, ReportFormat, ReportQuery } from '@pebble/contract';
import { counted } from '@pebble/core';
import { Api } from '../../api/api';
import { PlateList } from '../../map/plates/plate-list';
import { Plates } from '../../map/plates/plates';
import { MapSession } from '../../map/session/map-session';
import { Busy } from '../../shared/busy';
import { LeakGuard } from '../../shared/leaks/leak-guard';
import { saving } from '../../shared/saving';
import { SavingNote } from '../../shared/saving-note';
import { Notices } from '../../store/notices';
import { checking } from '../credits/checking';
import { CreditFields } from '../credits/credit-fields';
import { Credits } from '../credits/credits';

const FORMATS: readonly { readonly format: ReportFormat; readonly words: string; readonly hint: string }[] = [
  { format: 'docx', words: 'DOCX', hint: 'For word processors' },
  { format: 'html', words: 'HTML', hint: 'One file for every browser, that prints to pages' },
  { format: 'md', words: 'Markdown', hint: 'A text with its pictures beside it, in a zip' },
];

/** How files of each form end, and their media types. */
const FILES: Readonly<Record<ReportFormat, { readonly ending: string; readonly type: string }>> = {
  docx: {
    ending: '.docx',
    type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  },
  html: { ending: '.html', type: 'text/html' },
  md: { ending: ' (Markdown).zip', type: 'application/zip' },
};

/** Parts that a report can go without, with what they are called. */
const PARTS = [
  { part: 'portraits', words: 'portraits of the groups' },
  { part: 'tables', words: 'groups and first nodes in numbers' },
  { part: 'limits', words: 'what it cannot tell' },
] as const;
type Part = (typeof PARTS)[number]['part'];

/** Chooses what a report of maps holds, says what it would be, and saves it. */
@Component({
  selector: 'pt-report-maker',
  imports: [
    Busy,
    CreditFields,
    FormsModule,
    MatButton,
    MatCheckbox,
    MatDialogActions,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    MatLabel,
    MatProgressBar,
    MatTooltip,
    PlateList,
    SavingNote,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './report-maker.html',
  styleUrls: ['../fields.scss', './report-maker.scss'],
})
export class ReportMaker {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly guard = inject(LeakGuard);
  private readonly credits = inject(Credits);
  private readonly plates = inject(Plates);
  protected readonly dialog = inject<MatDialogRef<ReportMaker>>(MatDialogRef);
  protected readonly network = inject(MapSession).network() as Network;
  protected readonly saving = saving();
  protected readonly formats = FORMATS;
  protected readonly parts = PARTS;
  private readonly drawn = computed(() =>
    (this.plates.all() ?? []).filter(({ today }) => !['not drawn', 'no network'].includes(today.what)),
  );
  protected readonly hasPlates = computed(() => this.drawn().length > 0);
  /** Plates by their numbers; null for all that there are. */
  private readonly ownPlates = signal<readonly number[] | null>(null);
  protected readonly chosen = computed(() => this.ownPlates() ?? this.drawn().map(({ id }) => id));
  /** What is shown: the map that is open, or plates. */
  protected readonly what = signal<'map' | 'plates' | null>(null);
  protected readonly showsPlates = computed(() => (this.what() ?? 'plates') === 'plates' && this.hasPlates());
  protected readonly title = signal('');
  protected readonly usualTitle = computed(() => {
    const [first] = this.showsPlates() ? this.chosen() : [];
    return this.drawn().find(({ id }) => id === first)?.title ?? this.network.name;
  });
  protected readonly left = signal<ReadonlySet<Part>>(new Set());
  protected readonly methods = signal<ReportQuery['methods']>('long');
  protected readonly most = signal(10);

  private readonly query = computed<ReportQuery>(() => {
    const isIn = (part: Part): 'true' | 'false' => (this.left().has(part) ? 'false' : 'true');
    return {
      network: this.network.id,
      plates: this.showsPlates() ? this.chosen().join('|') : '',
      title: this.title().trim(),
      author: this.credits.author().trim(),
      licence: this.credits.licence().trim(),
      portraits: isIn('portraits'),
      tables: isIn('tables'),
      methods: this.methods(),
      limits: isIn('limits'),
      most: this.most(),
    };
  });
  protected readonly isEmpty = computed(() => this.showsPlates() && this.chosen().length === 0);
  protected readonly check = checking(
    computed(() => (this.isEmpty() ? null : this.query())),
    (query) => this.api.reportCheck({ study: this.network.study }, query),
  );
  protected readonly outline = computed(() => {
    const check = this.check.found();
    if (!check) return '';
    const { words, figures, tables } = check;
    return `${counted(words, 'word')}, ${counted(figures, 'figure')} and ${counted(tables, 'table')}.`;
  });

  protected choosePlates(ids: readonly number[] | null): void {
    this.ownPlates.set(ids);
  }

  protected toggle(part: Part, isIn: boolean): void {
    const left = new Set(this.left());
    if (isIn) left.delete(part);
    else left.add(part);
    this.left.set(left);
  }

  protected setMost(typed: number | null): void {
    if (typed !== null && typed >= 1 && typed <= 100) this.most.set(Math.round(typed));
  }

  protected async save(format: ReportFormat): Promise<void> {
    const check = this.check.found();
    const query = this.query();
    if (!check) return;
    const allowed = await this.guard.found(check.leaks);
    if (allowed === 'no') return;
    const { study } = this.network;
    const plates = query.plates === '' ? [] : query.plates.split('|').map(Number);
    const parameters = { ...query, plates, format, allowed };
    const { ending, type } = FILES[format];
    const name = `${query.title || this.usualTitle()}${ending}`;
    const bytes = this.api.report({ study, reportFormat: format }, query);
    this.saving.start(bytes, { study, kind: 'export-report', parameters, name, type }, ({ sentence }) =>
      this.notices.say(sentence),
    );
  }
}
