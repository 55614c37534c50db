import { HttpEventType, type HttpEvent } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { MessageFilter, Reading, RefusedFile, Source, Step, Upload } from '@pebble/contract';
import { Store } from '@ngrx/store';
import type { EChartsCoreOption } from 'echarts/core';
import { catchError, concatMap, EMPTY, from, of, switchMap, tap, type Subscription } from 'rxjs';
import { Api, toProblem } from '../api/api';
import { Chart } from '../shared/chart';
import { Notices } from '../shared/notices';
import { ThemeChoice } from '../shared/theme';
import { counted, day } from '../shared/words';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { ImportReportView } from './import-report';
import { droppedFiles } from './dropped-files';
import { PasteBox } from './paste-box';
import { PreviewPanel } from './preview-panel';
import { ReadingList } from './reading-list';

/** Bring messages in, and look at what came. */
@Component({
  selector: 'pt-gather',
  imports: [RouterLink, Chart, PasteBox, PreviewPanel, ImportReportView, ReadingList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './gather.html',
  styleUrl: './gather.scss',
  host: { '(dragover)': 'over($event)', '(dragleave)': 'dragging.set(false)', '(drop)': 'drop($event)' },
})
export class Gather {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly theme = inject(ThemeChoice);
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
  /** Files of the last drop that cannot be read. */
  protected readonly refused = signal<readonly RefusedFile[]>([]);
  protected readonly pasting = signal(false);
  protected readonly importing = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly finished = signal<Step | null>(null);
  protected readonly shownReport = signal<Source | null>(null);
  protected readonly filter = signal<MessageFilter>({});
  private readonly notices = inject(Notices);
  private waiting: File[] = [];
  private transfer: Subscription | null = null;

  private readonly timelineAsked = computed(() => {
    const { from: _from, until: _until, sample: _sample, seed: _seed, ...rest } = this.filter();
    return { study: this.study()?.id ?? null, messages: this.overview()?.messages ?? 0, filter: rest };
  });
  private readonly timeline = toSignal(
    toObservable(this.timelineAsked).pipe(
      switchMap(({ study, messages, filter }) =>
        study && messages ? this.api.timeline(study, filter).pipe(catchError(() => of(null))) : of(null),
      ),
    ),
    { initialValue: null },
  );
  protected readonly undated = computed(() => this.timeline()?.undated ?? 0);
  protected readonly unit = computed(() => this.timeline()?.unit ?? 'day');
  protected readonly chart = computed<EChartsCoreOption | null>(() => {
    const line = this.timeline();
    if (!line || line.starts.length === 0) return null;
    const colours = this.theme.map();
    const { from, until } = this.filter();
    const inside = (start: number): boolean =>
      from === undefined || until === undefined || (start >= from && start < until);
    const label = (start: number): string =>
      line.unit === 'hour' ? new Date(start).toISOString().slice(5, 16).replace('T', ' ') : day(start);
    return {
      grid: { left: 44, right: 10, top: 10, bottom: 22 },
      tooltip: { trigger: 'axis', axisPointer: { type: 'shadow' } },
      brush: {
        xAxisIndex: 0,
        brushStyle: { color: 'rgba(180,81,47,0.12)', borderColor: colours.mark },
        throttleType: 'debounce',
        throttleDelay: 200,
        toolbox: [],
      },
      toolbox: { show: false },
      xAxis: {
        type: 'category',
        data: line.starts.map(label),
        axisLine: { lineStyle: { color: colours.soft } },
        axisTick: { show: false },
        axisLabel: { color: colours.soft, hideOverlap: true },
      },
      yAxis: {
        type: 'value',
        splitNumber: 2,
        axisLabel: { color: colours.soft },
        splitLine: { lineStyle: { color: colours.soft, opacity: 0.18 } },
      },
      series: [
        {
          type: 'bar',
          name: 'messages',
          barCategoryGap: '15%',
          data: line.counts.map((value, i) => ({
            value,
            itemStyle: {
              color: inside(line.starts[i]) ? '#1F6F78' : colours.soft,
              opacity: inside(line.starts[i]) ? 1 : 0.35,
            },
          })),
        },
      ],
    };
  });

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
    this.api.previewAgain(study.id, upload.id, upload.preview.file, reading).subscribe({
      next: (preview) =>
        this.uploads.update((all) => all.map((one) => (one.id === upload.id ? { ...upload, preview } : one))),
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected accept(reading: Reading): void {
    const upload = this.upload();
    if (upload) this.takeIn([{ upload, reading }]);
  }

  /** Every waiting file with the same columns is read in the same way, each as a source of its own. */
  protected acceptAll(reading: Reading): void {
    const first = this.upload();
    if (!first) return;
    const alike = this.uploads().filter((other) => isAlike(other, first));
    this.takeIn(
      alike.map((upload) => ({ upload, reading: { ...reading, sheet: upload.preview.reading.sheet } })),
    );
  }

  protected keepReading(name: string): void {
    const upload = this.upload();
    if (!upload || !name.trim()) return;
    this.api.saveReading(name, upload.preview.reading).subscribe({
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
    if (upload && study) this.api.dropUpload(study.id, upload.id).subscribe({ error: () => undefined });
    this.uploads.update(([_, ...others]) => others);
    this.next();
  }

  protected paste(text: string): void {
    this.pasting.set(false);
    this.take([new File([text], `pasted ${new Date().toISOString().slice(0, 16).replace('T', ' ')}.tsv`)]);
  }

  protected removeSource({ id, name }: Source): void {
    this.changeSource('remove-source', id, name);
  }

  protected restoreSource({ id, name }: Source): void {
    this.changeSource('restore-source', id, name);
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

  private takeIn(files: readonly { upload: Upload; reading: Reading }[]): void {
    const study = this.study();
    if (!study) return;
    this.importing.set(true);
    this.problem.set(null);
    this.finished.set(null);
    from(files)
      .pipe(
        concatMap(({ upload, reading }) => {
          const { file } = upload.preview;
          const kind = reading.material === 'network' ? 'import-network' : 'import-source';
          return this.api.step(study.id, kind, { upload: upload.id, file, name: file, reading }).pipe(
            tap((step) => this.onTaken(upload, step)),
            catchError((error: Error) => {
              this.problem.set(error.message);
              return EMPTY;
            }),
          );
        }),
      )
      .subscribe({ complete: () => this.importing.set(false) });
  }

  private onTaken(upload: Upload, step: Step): void {
    if (step.state !== 'done') {
      this.problem.set(step.error ?? 'The import was stopped.');
      return;
    }
    this.uploads.update((all) => all.filter(({ id }) => id !== upload.id));
    this.finished.set(step);
    const network = step.result?.['network'];
    if (typeof network === 'string' && this.uploads().length === 0 && this.waiting.length === 0)
      void this.router.navigate(['/studies', step.study, 'map', network]);
    this.next();
  }

  protected brush(range: readonly [number, number] | null): void {
    const line = this.timeline();
    if (!line) return;
    if (!range) {
      this.filter.update((filter) => ({ ...filter, from: undefined, until: undefined }));
      return;
    }
    const first = Math.max(0, Math.round(range[0]));
    const last = Math.min(line.starts.length - 1, Math.round(range[1]));
    const step = line.starts.length > 1 ? line.starts[1] - line.starts[0] : 86_400_000;
    this.filter.update((filter) => ({
      ...filter,
      from: line.starts[first],
      until: line.starts[last] + step,
    }));
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
    this.transfer = this.api.upload(study.id, file).subscribe({
      next: (event) => this.onTransfer(event as HttpEvent<unknown>),
      error: (error: unknown) => {
        this.sending.set(null);
        this.refused.update((all) => [
          ...all,
          { file: file.name, reason: toProblem(error).message, row: null },
        ]);
        this.next();
      },
    });
  }

  private onTransfer(event: HttpEvent<unknown>): void {
    if (event.type === HttpEventType.UploadProgress && event.total)
      this.sending.set(event.loaded / event.total);
    if (event.type !== HttpEventType.Response) return;
    this.sending.set(null);
    const { uploads, refused } = this.api.parseUploads(event.body);
    this.uploads.update((all) => [...all, ...uploads]);
    this.refused.update((all) => [...all, ...refused]);
    this.next();
  }
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
