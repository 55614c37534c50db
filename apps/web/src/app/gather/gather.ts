import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { type MessageFilter, type CollectRun, type Source, type Step } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { focusSoon } from '../shared/focus';
import { Notices } from '../store/notices';
import { doneSteps } from '../shared/done-steps';
import { counted } from '../shared/words';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { AccountTable } from './account-table';
import { ImportReportView } from './import-report';
import { ItemTable } from './item-table';
import { CollectPanel } from './collect-panel';
import { droppedFiles } from './dropped-files';
import { addressOf, filterOf, isSame } from './filter-address';
import { IncomingFiles } from './incoming-files';
import { ForGood } from '../shared/for-good';
import { NodeTableChoice } from './node-table-choice';
import { PasteBox } from './paste-box';
import { PreviewPanel } from './preview-panel';
import { ReadingList } from './reading-list';
import { RunCard } from './run-card';
import { TimeChart } from './time-chart';

/** Bring messages in, and look at what came. */
@Component({
  selector: 'pt-gather',
  imports: [
    MatTabLink,
    MatTabNav,
    MatTabNavPanel,
    MatButton,
    ForGood,
    RouterLink,
    AccountTable,
    CollectPanel,
    ImportReportView,
    ItemTable,
    NodeTableChoice,
    PasteBox,
    PreviewPanel,
    ReadingList,
    RunCard,
    TimeChart,
  ],
  providers: [IncomingFiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './gather.html',
  styleUrl: './gather.scss',
  host: { '(dragover)': 'over($event)', '(dragleave)': 'dragging.set(false)', '(drop)': 'drop($event)' },
})
export class Gather {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly sources = this.store.selectSignal(work.selectSources);
  protected readonly counted = counted;

  protected readonly dragging = signal(false);
  protected readonly incoming = inject(IncomingFiles);
  protected readonly pasting = signal(false);
  protected readonly shownReport = signal<Source | null>(null);
  private readonly route = inject(ActivatedRoute);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  /** What the address asks for. */
  protected readonly filter = signal<MessageFilter>(filterOf(this.route.snapshot.queryParams));
  private readonly steps = this.store.selectSignal(work.selectSteps);
  protected readonly marks = computed(() => doneSteps(this.steps(), ({ kind }) => kind === 'mark-message'));
  protected readonly runs = this.store.selectSignal(work.selectRuns);
  protected readonly collecting = signal(false);
  protected readonly allRuns = signal(false);
  /** Runs that are at work or wait for a word, and the latest one that ended. */
  protected readonly shownRuns = computed(() => {
    const runs = this.runs();
    if (this.allRuns()) return runs;
    return runs.filter(({ state }, i) => i === 0 || !['done', 'cancelled'].includes(state));
  });
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  /** What is looked at below the time chart. */
  protected readonly view = signal<'messages' | 'accounts' | 'items'>('messages');
  /** Whether anything came in that can be looked at. */
  protected readonly hasCome = computed(() => {
    const overview = this.overview();
    return overview !== null && overview.messages + overview.items + overview.follows > 0;
  });
  private readonly notices = inject(Notices);

  /** The import whose report is shown: once, however often the sources are read again meanwhile. */
  private readonly reported = computed(() => {
    const step = this.incoming.finished();
    return step && this.reportOf(step) ? step.id : null;
  });

  constructor() {
    // The back key brings the filter back that stood there before.
    this.route.queryParams.pipe(takeUntilDestroyed()).subscribe((params) => {
      const asked = filterOf(params);
      if (!isSame(addressOf(asked), addressOf(untracked(this.filter)))) this.filter.set(asked);
    });
    effect(() => {
      const queryParams = addressOf(this.filter());
      if (isSame(queryParams, addressOf(filterOf(this.route.snapshot.queryParams)))) return;
      void this.router.navigate([], { relativeTo: this.route, queryParams });
    });
    // The button that was pressed is gone: what came is read from its report on.
    effect(() => {
      if (this.reported() !== null)
        focusSoon(this.injector, () => this.host.nativeElement.querySelector('.report h2'));
    });
  }

  protected closeReport(): void {
    this.incoming.finished.set(null);
    focusSoon(this.injector, () => this.host.nativeElement.querySelector('h1'));
  }

  protected over(event: DragEvent): void {
    event.preventDefault();
    this.dragging.set(true);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.dragging.set(false);
    if (event.dataTransfer) void droppedFiles(event.dataTransfer).then((files) => this.incoming.take(files));
  }

  protected chosen(event: Event): void {
    const input = event.target as HTMLInputElement;
    this.incoming.take([...(input.files ?? [])]);
    input.value = '';
  }

  protected paste(text: string): void {
    this.pasting.set(false);
    this.incoming.take([
      new File([text], `pasted ${new Date().toISOString().slice(0, 16).replace('T', ' ')}.tsv`),
    ]);
  }

  protected onBegun(run: CollectRun): void {
    this.collecting.set(false);
    this.store.dispatch(WorkActions.runReported({ run }));
  }

  protected removeSource({ id, name }: Source): void {
    this.changeSource('remove-source', id, name);
  }

  protected restoreSource({ id, name }: Source): void {
    this.changeSource('restore-source', id, name);
  }

  protected removeForGood({ id }: Source): void {
    const study = this.study();
    if (!study) return;
    this.shownReport.set(null);
    this.api.step(study.id, 'remove-for-good', { networks: [], sources: [id], plates: [] }).subscribe({
      next: ({ state, error, sentence }) => {
        if (state === 'done') this.notices.say(sentence);
        else this.incoming.problem.set(error);
      },
      error: (error: Error) => this.incoming.problem.set(error.message),
    });
  }

  private changeSource(kind: 'remove-source' | 'restore-source', source: number, name: string): void {
    const study = this.study();
    if (!study) return;
    this.shownReport.set(null);
    this.api.step(study.id, kind, { source, name }).subscribe({
      next: ({ state, error, sentence }) => {
        if (state !== 'done') this.incoming.problem.set(error);
        else if (kind === 'remove-source')
          this.notices.withUndo(sentence, WorkActions.sourceRestoreRequested({ source, name }));
      },
      error: (error: Error) => this.incoming.problem.set(error.message),
    });
  }

  protected setPeriod(period: Pick<MessageFilter, 'from' | 'until'>): void {
    this.filter.update((filter) => ({ ...filter, from: period.from, until: period.until }));
  }

  /** From the tables of accounts and items to their messages. */
  protected readOnly(filter: MessageFilter): void {
    this.filter.set(filter);
    this.view.set('messages');
  }

  /** "9,000 messages, 60 items" */
  protected brought({ report }: Source): string {
    const parts = [
      report.kept > 0 ? counted(report.kept, 'message') : '',
      report.items > 0 ? counted(report.items, 'item') : '',
      report.follows > 0 ? counted(report.follows, 'tie of following', 'ties of following') : '',
      report.kept + report.items + report.follows === 0 ? counted(report.profiles, 'account') : '',
    ];
    return parts.filter((part) => part !== '').join(', ');
  }

  /** The sentence about the languages of a source, once they were found. */
  protected languagesOf({ id }: Source): string {
    const step = this.steps().find(
      ({ kind, state, parameters }) =>
        kind === 'detect-languages' && state === 'done' && parameters['source'] === id,
    );
    return step?.sentence ?? '';
  }

  protected reportOf(step: Step): Source | null {
    return this.sources().find((source) => source.step === step.id) ?? null;
  }
}
