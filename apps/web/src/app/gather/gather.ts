import { HttpEventType, type HttpEvent } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { MessageFilter, Reading, Source, Step, Upload } from '@pebble/contract';
import { Store } from '@ngrx/store';
import type { EChartsCoreOption } from 'echarts/core';
import { catchError, of, switchMap, type Subscription } from 'rxjs';
import { Api, toProblem } from '../api/api';
import { Chart } from '../shared/chart';
import { ThemeChoice } from '../shared/theme';
import { counted, day } from '../shared/words';
import { work } from '../store/work.reducer';
import { ImportReportView } from './import-report';
import { PreviewPanel } from './preview-panel';
import { ReadingList } from './reading-list';

/** Bring messages in, and look at what came. */
@Component({
  selector: 'pt-gather',
  imports: [RouterLink, Chart, PreviewPanel, ImportReportView, ReadingList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './gather.html',
  styleUrl: './gather.scss',
  host: { '(dragover)': 'over($event)', '(dragleave)': 'dragging.set(false)', '(drop)': 'drop($event)' },
})
export class Gather {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly theme = inject(ThemeChoice);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly sources = this.store.selectSignal(work.selectSources);
  protected readonly counted = counted;

  protected readonly dragging = signal(false);
  protected readonly sending = signal<number | null>(null);
  protected readonly upload = signal<Upload | null>(null);
  protected readonly importing = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly finished = signal<Step | null>(null);
  protected readonly shownReport = signal<Source | null>(null);
  protected readonly filter = signal<MessageFilter>({});
  private waiting: File[] = [];
  private transfer: Subscription | null = null;

  private readonly timelineAsked = computed(() => {
    const { from: _from, until: _until, ...rest } = this.filter();
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
    this.take([...(event.dataTransfer?.files ?? [])]);
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
      next: (preview) => this.upload.set({ ...upload, preview }),
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected accept(reading: Reading): void {
    const upload = this.upload();
    const study = this.study();
    if (!upload || !study) return;
    const { file } = upload.preview;
    this.importing.set(true);
    this.problem.set(null);
    this.api.step(study.id, 'import-messages', { upload: upload.id, file, name: file, reading }).subscribe({
      next: (step) => {
        this.importing.set(false);
        if (step.state === 'done') {
          this.upload.set(null);
          this.finished.set(step);
          this.next();
        } else {
          this.problem.set(step.error ?? 'The import was stopped.');
        }
      },
      error: (error: Error) => {
        this.importing.set(false);
        this.problem.set(error.message);
      },
    });
  }

  protected drop1(): void {
    const upload = this.upload();
    const study = this.study();
    if (upload && study) this.api.dropUpload(study.id, upload.id).subscribe({ error: () => undefined });
    this.upload.set(null);
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
    if (!this.upload() && this.sending() === null) this.next();
  }

  /** Several files are looked at one after the other. */
  private next(): void {
    const file = this.waiting.shift();
    const study = this.study();
    if (!file || !study) return;
    this.problem.set(null);
    this.finished.set(null);
    this.sending.set(0);
    this.transfer = this.api.upload(study.id, file).subscribe({
      next: (event) => this.onTransfer(event as HttpEvent<unknown>),
      error: (error: unknown) => {
        this.sending.set(null);
        this.problem.set(`${file.name}: ${toProblem(error).message}`);
        this.next();
      },
    });
  }

  private onTransfer(event: HttpEvent<unknown>): void {
    if (event.type === HttpEventType.UploadProgress && event.total)
      this.sending.set(event.loaded / event.total);
    if (event.type !== HttpEventType.Response) return;
    this.sending.set(null);
    this.upload.set(this.api.parseUpload(event.body));
  }
}
