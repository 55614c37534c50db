import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatMenu, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { PortraitSettings, type FullPortrait, type Network, type PortraitFormat } from '@pebble/contract';
import { nodeWords, wovenAs, writePortraits } from '@pebble/core';
import { counted } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { Api, pathOf } from '../../api/api';
import { Busy } from '../../shared/busy';
import { CountPipe } from '../../shared/count-pipe';
import { LeakGuard } from '../../shared/leaks/leak-guard';
import { saveFile } from '../../shared/save-file';
import { Notices } from '../../store/notices';
import { work } from '../../store/work.reducer';
import { BetweenList } from './between-list';
import type { Behind } from '../common/messages-behind';
import type { Evidence } from '../common/evidence';
import { MemoLinks } from './memo-links';
import { NodeList } from './node-list';
import { MOST, Portraits } from '../common/portraits';
import { THING_WORDS } from '../common/thing-words';
import { PortraitHead } from './portrait-head';
import { portrayalOf } from './portrayal';
import { rowsOf } from './rows';
import { standing } from './standing';
import { SaidList, type SaidView } from './said-list';
import { Speech } from './speech';
import { TermList, type TermView } from './term-list';
import { WhenChart } from './when-chart';

const TYPES: Readonly<Record<PortraitFormat, string>> = {
  html: 'text/html',
  md: 'text/markdown',
  csv: 'text/csv',
};

/** Messages of a group that are opened; the group whose quotations they can be, or null. */
interface PortraitEvidence extends Behind {
  readonly group: string | null;
}

/** What each group is, what it says and who speaks for it: portraits beside each other, each number with its messages. */
@Component({
  selector: 'pt-portraits-view',
  imports: [
    BetweenList,
    Busy,
    CountPipe,
    FormsModule,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatCheckbox,
    MatFormField,
    MatInput,
    MatMenu,
    MatMenuItem,
    MatMenuTrigger,
    MatTooltip,
    MemoLinks,
    NodeList,
    PortraitHead,
    SaidList,
    Speech,
    TermList,
    WhenChart,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './portraits-view.html',
  styleUrls: ['../common/view.scss', './portraits-view.scss'],
})
export class PortraitsView {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly api = inject(Api);
  private readonly guard = inject(LeakGuard);
  private readonly notices = inject(Notices);
  protected readonly portraits = inject(Portraits);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  readonly network = input.required<Network>();
  readonly column = input.required<string>();
  /** From the address: which groups stand beside each other. */
  readonly groups = input<string>();
  readonly opened = output<PortraitEvidence>();
  readonly quoted = output<{ readonly group: string; readonly message: number }>();
  protected readonly most = MOST;
  protected readonly things = THING_WORDS;
  protected readonly formats: readonly (readonly [PortraitFormat, string])[] = [
    ['html', 'HTML'],
    ['md', 'Markdown'],
    ['csv', 'CSV'],
  ];
  protected readonly terms = signal<TermView>('typical');
  protected readonly said = signal<SaidView>('nearest');
  protected readonly leastAuthors = signal(3);
  protected readonly isChoosing = signal(false);
  /** Rows that show all they have. */
  private readonly wide = signal<ReadonlySet<string>>(new Set());

  protected readonly hasMessages = computed(() => (this.portraits.list()?.messages ?? 0) > 0);
  protected readonly rows = computed(() => rowsOf(this.hasMessages()));
  private readonly nodeWord = computed(() => nodeWords(wovenAs(this.network())));
  protected readonly titles = this.portraits.titles;
  protected readonly values = computed(() => (this.portraits.list()?.groups ?? []).map(({ group }) => group));
  protected readonly standing = standing;
  protected readonly portrayal = computed(() => portrayalOf(this.steps(), this.network().id, this.column()));
  protected readonly isDrawing = computed(
    () => this.portraits.drawing.busy() || this.portrayal() === 'drawn now',
  );
  protected readonly further = computed(() => {
    const further = this.portraits.list()?.further;
    if (!further || further.groups === 0) return '';
    if (further.groups === further.nodes)
      return `${counted(further.nodes, ...this.nodeWord())} in no group with others`;
    return `${counted(further.groups, 'smaller group')} with ${counted(further.nodes, ...this.nodeWord())} without a portrait`;
  });

  constructor() {
    effect(() => {
      const asked = groupsIn(this.groups());
      untracked(() => this.portraits.show(asked));
    });
    effect(() => {
      const settings = this.portraits.list()?.settings;
      if (settings) untracked(() => this.leastAuthors.set(settings.leastAuthors));
    });
  }

  /** Opens the messages that a number counts. */
  protected open(evidence: Evidence): void {
    const network = this.network();
    const column = this.column();
    const { query, words } = evidence;
    const title = this.portraits.titleOf(query.group);
    this.opened.emit({
      group: query.elsewhere === 'true' ? null : query.group,
      words,
      where: `${query.elsewhere === 'true' ? 'Not in' : 'In'} “${title}”`,
      found: query.label,
      page: (offset, limit) => this.api.groupMessages(pathOf(network), { ...query, column, offset, limit }),
    });
  }

  protected isWide(row: string): boolean {
    return this.wide().has(row);
  }

  protected widen(row: string): void {
    const next = new Set(this.wide());
    if (!next.delete(row)) next.add(row);
    this.wide.set(next);
  }

  protected isShown(group: string): boolean {
    return this.portraits.shown().includes(group);
  }

  protected toggle(group: string, isWanted: boolean): void {
    const shown = this.portraits.shown();
    this.show(isWanted ? [...shown, group] : shown.filter((one) => one !== group));
  }

  /** Moves a portrait by one place among those that are shown. */
  protected move(group: string, by: 1 | -1): void {
    const order = [...this.portraits.shown()];
    const at = order.indexOf(group);
    [order[at], order[at + by]] = [order[at + by], order[at]];
    this.show(order);
  }

  /** Which groups stand beside each other, and in which order, stands in the address. */
  private show(groups: readonly string[]): void {
    void this.router.navigate([], {
      queryParams: { groups: JSON.stringify(groups) },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  protected draw(): void {
    const before = this.portraits.list()?.settings ?? PortraitSettings.parse({});
    const leastAuthors = Math.min(1000, Math.max(1, Math.round(this.leastAuthors()) || 1));
    this.portraits.draw({ ...before, leastAuthors });
  }

  /** Another sample, by the next seed. */
  protected drawSample(): void {
    const before = this.portraits.list()?.settings;
    if (before) this.portraits.draw({ ...before, seed: before.seed + 1 });
  }

  protected call(group: string, text: string): void {
    const title = text.trim();
    const before = this.portraits.list()?.groups.find((one) => one.group === group)?.notes.title ?? '';
    if (title === before) return;
    this.portraits.note(group, { title }, () =>
      this.notices.withUndo(`The group is called “${this.portraits.titleOf(group)}” now.`, () =>
        this.portraits.note(group, { title: before }),
      ),
    );
  }

  /** Opens what a memo points at. */
  protected openBehind(behind: Behind): void {
    this.opened.emit({ ...behind, group: null });
  }

  protected keepMemo({ group, notes }: FullPortrait, memo: string): void {
    if (memo !== notes.memo) this.portraits.note(group, { memo });
  }

  protected async save(format: PortraitFormat): Promise<void> {
    const [network, list] = [this.network(), this.portraits.list()];
    if (!list) return;
    const shown = this.portraits.portraits().flatMap(({ portrait }) => portrait ?? []);
    const text = writePortraits(format, {
      name: network.name,
      list,
      portraits: shown,
      titles: this.titles(),
      directed: network.directed,
    });
    const file = `${network.name}, portraits.${format}`;
    const written = [
      { place: 'name of the file', text: file },
      { place: 'portraits', text },
    ];
    const allowed = await this.guard.texts(network.study, written).catch((error: Error) => {
      this.notices.say(`${error.message} Nothing was saved.`);
      return 'no' as const;
    });
    if (allowed === 'no') return;
    saveFile(new Blob([text], { type: `${TYPES[format]};charset=utf-8` }), file);
    const groups = shown.map(({ group }) => group);
    const asked = { network: network.id, column: this.column(), groups, format, allowed };
    this.api.step(network.study, 'export-portraits', asked).subscribe({
      next: () => this.notices.say('The portraits were saved; the logbook has the step.'),
      error: (error: Error) => this.notices.say(error.message),
    });
  }
}

/** The groups that an address names; null where it names none. */
function groupsIn(text: string | undefined): readonly string[] | null {
  if (text === undefined) return null;
  try {
    const found: unknown = JSON.parse(text);
    return Array.isArray(found) ? found.map(String) : null;
  } catch {
    return null;
  }
}
