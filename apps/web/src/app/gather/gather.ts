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
import {
  LONGEST_NAME,
  type MessageFilter,
  SOURCE_MATERIALS,
  type CollectRun,
  type NodeTable,
  type Reading,
  type RefusedFile,
  type Source,
  type Step,
  type Upload,
} from '@pebble/contract';
import { Store } from '@ngrx/store';
import { catchError, concatMap, EMPTY, from, tap, type Observable, type Subscription } from 'rxjs';
import { Api, refusalOf, type Transfer } from '../api/api';
import { focusSoon } from '../shared/focus';
import { Notices } from '../shared/notices';
import { counted, shortened } from '../shared/words';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { AccountTable } from './account-table';
import { ImportReportView } from './import-report';
import { ItemTable } from './item-table';
import { CollectPanel } from './collect-panel';
import { droppedFiles } from './dropped-files';
import { addressOf, filterOf, isSame } from './filter-address';
import { ForGood } from '../shared/for-good';
import { NodeTableChoice } from './node-table-choice';
import { PasteBox } from './paste-box';
import { PreviewPanel, type Accepted } from './preview-panel';
import { ReadingList } from './reading-list';
import { RunCard } from './run-card';
import { TimeChart } from './time-chart';

/** Bring messages in, and look at what came. */
@Component({
  selector: 'pt-gather',
  imports: [
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
  protected readonly sending = signal<number | null>(null);
  /** Files that were looked at and wait to be taken in; the first one is shown. */
  protected readonly uploads = signal<readonly Upload[]>([]);
  protected readonly upload = computed<Upload | null>(() => this.uploads()[0] ?? null);
  protected readonly alike = computed(
    () => this.uploads().filter((other) => isAlike(other, this.upload()!)).length,
  );
  /** The table in which the nodes of the shown ties stand. */
  protected readonly nodes = signal<NodeTable | null>(null);
  protected readonly others = computed(() => this.uploads().slice(1));
  /** Files of the last drop that cannot be read. */
  protected readonly refused = signal<readonly RefusedFile[]>([]);
  protected readonly pasting = signal(false);
  protected readonly importing = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly finished = signal<Step | null>(null);
  protected readonly shownReport = signal<Source | null>(null);
  private readonly route = inject(ActivatedRoute);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  /** What the address asks for. */
  protected readonly filter = signal<MessageFilter>(filterOf(this.route.snapshot.queryParams));
  private readonly steps = this.store.selectSignal(work.selectSteps);
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
  private waiting: File[] = [];
  private transfer: Subscription | null = null;

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
      const step = this.finished();
      if (step && this.reportOf(step))
        focusSoon(this.injector, () => this.host.nativeElement.querySelector('.report h2'));
    });
  }

  protected closeReport(): void {
    this.finished.set(null);
    focusSoon(this.injector, () => this.host.nativeElement.querySelector('h1'));
  }

  protected over(event: DragEvent): void {
    event.preventDefault();
    this.dragging.set(true);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.dragging.set(false);
    if (event.dataTransfer) void droppedFiles(event.dataTransfer).then((files) => this.take(files));
  }

  protected chosen(event: Event): void {
    const input = event.target as HTMLInputElement;
    this.take([...(input.files ?? [])]);
    input.value = '';
  }

  protected stopSending(): void {
    this.transfer?.unsubscribe();
    this.sending.set(null);
  }

  protected correct(reading: Partial<Reading>): void {
    const upload = this.upload();
    const study = this.study();
    if (!upload || !study) return;
    this.api
      .previewAgain({ study: study.id, upload: upload.id }, { file: upload.preview.file, reading })
      .subscribe({
        next: (preview) =>
          this.uploads.update((all) =>
            all.map((one) => (one.id === upload.id ? { ...upload, preview } : one)),
          ),
        error: (error: Error) => this.problem.set(error.message),
      });
  }

  protected accept(accepted: Accepted): void {
    const upload = this.upload();
    const nodes = accepted.reading.material === 'network' ? this.nodes() : null;
    if (upload) this.takeIn([{ upload, nodes, ...accepted }]);
  }

  /** Every waiting file with the same columns is read in the same way, each as a source of its own or all as one. */
  protected acceptAll({ reading, asOne }: { reading: Reading; asOne: boolean }): void {
    const first = this.upload();
    if (!first) return;
    const alike = this.uploads().filter((other) => isAlike(other, first));
    // What stands in the file's own name or sheet stays its own.
    const files = alike.map((upload) => {
      const { sheet, followed } = upload.preview.reading;
      return { upload, reading: { ...reading, sheet, ...(upload === first ? {} : { followed }) } };
    });
    if (!asOne) this.takeIn(files);
    else this.takeIn([{ ...files[0], more: files.slice(1) }]);
  }

  protected keepReading(name: string): void {
    const upload = this.upload();
    if (!upload || !name.trim()) return;
    this.api.saveReading({ name, reading: upload.preview.reading }).subscribe({
      next: (saved) => {
        this.uploads.update((all) =>
          all.map((one) => (one.id === upload.id ? { ...one, preview: { ...one.preview, saved } } : one)),
        );
        this.notices.say(`“${name.trim()}” will be offered for files with these columns.`);
      },
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected leaveOut(): void {
    const upload = this.upload();
    const study = this.study();
    if (upload && study)
      this.api.dropUpload({ study: study.id, upload: upload.id }).subscribe({ error: () => undefined });
    this.uploads.update(([_, ...others]) => others);
    this.next();
  }

  protected paste(text: string): void {
    this.pasting.set(false);
    this.take([new File([text], `pasted ${new Date().toISOString().slice(0, 16).replace('T', ' ')}.tsv`)]);
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
    this.api.step(study.id, 'remove-for-good', { networks: [], sources: [id] }).subscribe({
      next: ({ state, error, sentence }) => {
        if (state === 'done') this.notices.say(sentence);
        else this.problem.set(error);
      },
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  private changeSource(kind: 'remove-source' | 'restore-source', source: number, name: string): void {
    const study = this.study();
    if (!study) return;
    this.shownReport.set(null);
    this.api.step(study.id, kind, { source, name }).subscribe({
      next: ({ state, error, sentence }) => {
        if (state !== 'done') this.problem.set(error);
        else if (kind === 'remove-source')
          this.notices.withUndo(sentence, WorkActions.sourceRestoreRequested({ source, name }));
      },
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  private takeIn(files: readonly Taking[]): void {
    const study = this.study();
    if (!study) return;
    this.importing.set(true);
    this.problem.set(null);
    this.finished.set(null);
    from(files)
      .pipe(
        concatMap((taking) =>
          this.send(study.id, taking).pipe(
            tap((step) => this.onTaken(taking, step)),
            catchError((error: Error) => {
              this.problem.set(error.message);
              return EMPTY;
            }),
          ),
        ),
      )
      .subscribe({ complete: () => this.importing.set(false) });
  }

  private send(
    study: string,
    { upload, reading, network, column, nodes, more = [] }: Taking,
  ): Observable<Step> {
    const { file } = upload.preview;
    const sent = { upload: upload.id, file, reading };
    if (network !== undefined)
      return column === undefined
        ? this.api.step(study, 'add-node-details', { ...sent, network })
        : this.api.step(study, 'add-groups', { ...sent, network, column });
    if (!SOURCE_MATERIALS.includes(reading.material))
      return this.api.step(study, 'import-network', { ...sent, name: shortened(file), nodes: nodes ?? null });
    const others = more.map((one) => ({
      upload: one.upload.id,
      file: one.upload.preview.file,
      reading: one.reading,
    }));
    const alsoFrom = others.length > 0 ? ` and ${counted(others.length, 'more file')}` : '';
    const name = `${shortened(file, LONGEST_NAME - alsoFrom.length)}${alsoFrom}`;
    return this.api.step(study, 'import-source', { ...sent, name, more: others });
  }

  private onTaken({ upload, nodes, more = [] }: Taking, step: Step): void {
    if (step.state !== 'done') {
      this.problem.set(step.error ?? 'The import was stopped.');
      return;
    }
    const taken = [upload.id, nodes?.upload, ...more.map((one) => one.upload.id)];
    this.uploads.update((all) => all.filter(({ id }) => !taken.includes(id)));
    this.finished.set(step);
    const network = step.result?.['network'];
    if (typeof network === 'string' && this.uploads().length === 0 && this.waiting.length === 0)
      void this.router.navigate(['/studies', step.study, 'map', network]);
    this.next();
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

  private take(files: File[]): void {
    this.waiting.push(...files);
    this.refused.set([]);
    if (this.sending() === null) this.next();
  }

  /** Several files are sent and looked at one after the other. */
  private next(): void {
    if (this.sending() !== null) return;
    const file = this.waiting.shift();
    const study = this.study();
    if (!file || !study) return;
    this.sending.set(0);
    this.transfer = this.api.transfer(study.id, file).subscribe({
      next: (transfer) => this.onTransfer(transfer),
      error: (error: unknown) => {
        this.sending.set(null);
        this.refused.update((all) => [...all, refusalOf(file.name, error)]);
        this.next();
      },
    });
  }

  private onTransfer({ share, answer }: Transfer): void {
    this.sending.set(answer ? null : share);
    if (!answer) return;
    const { uploads, refused } = answer;
    // A table of nodes waits for the ties that it goes with.
    const isOfNodes = ({ preview }: Upload): number => (preview.reading.material === 'nodes' ? 1 : 0);
    this.uploads.update((all) => [...all, ...uploads].sort((a, b) => isOfNodes(a) - isOfNodes(b)));
    this.refused.update((all) => [...all, ...refused]);
    this.next();
  }
}

/** A file that is taken in as it was agreed, with others that become one source with it. */
interface Taking extends Accepted {
  readonly upload: Upload;
  /** Where the nodes of its ties stand in a table of their own. */
  readonly nodes?: NodeTable | null;
  readonly more?: readonly Taking[];
}

/** Whether two files have the same columns and meaning, so that what is said of one holds for the other. */
function isAlike({ preview: a }: Upload, { preview: b }: Upload): boolean {
  const names = ({ reading }: typeof a): string => reading.columns.map(({ name }) => name).join('\n');
  return (
    a.reading.material === b.reading.material &&
    a.reading.format === b.reading.format &&
    a.reading.encoding === b.reading.encoding &&
    names(a) === names(b)
  );
}
