import { computed, inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import {
  LONGEST_NAME,
  SOURCE_MATERIALS,
  type NodeTable,
  type ImportMapping,
  type RefusedFile,
  type Step,
  type Upload,
} from '@pebble/contract';
import { Store } from '@ngrx/store';
import { catchError, concatMap, EMPTY, from, tap, type Observable, type Subscription } from 'rxjs';
import { Api, refusalOf, type Transfer } from '../api/api';
import { Notices } from '../store/notices';
import { counted, shortened } from '../shared/words';
import { work } from '../store/work.reducer';
import type { Accepted } from './preview-panel';

/** Files on their way into the study: they are sent, looked at, corrected, and taken in, one after the other. */
@Injectable()
export class IncomingFiles {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly study = this.store.selectSignal(work.selectStudy);
  /** How much of the file on its way is sent, 0 to 1; null where none is. */
  readonly sending = signal<number | null>(null);
  /** Files that were looked at and wait to be taken in; the first one is shown. */
  readonly uploads = signal<readonly Upload[]>([]);
  readonly upload = computed<Upload | null>(() => this.uploads()[0] ?? null);
  readonly others = computed(() => this.uploads().slice(1));
  /** How many of those that wait have the same columns as the shown one. */
  readonly alike = computed(() => this.uploads().filter((other) => isAlike(other, this.upload()!)).length);
  /** The table in which the nodes of the shown ties stand. */
  readonly nodes = signal<NodeTable | null>(null);
  /** Files of the last drop that cannot be read. */
  readonly refused = signal<readonly RefusedFile[]>([]);
  readonly importing = signal(false);
  readonly problem = signal<string | null>(null);
  /** The import that was done last. */
  readonly finished = signal<Step | null>(null);
  private waiting: File[] = [];
  private transfer: Subscription | null = null;

  stopSending(): void {
    this.transfer?.unsubscribe();
    this.sending.set(null);
  }

  correct(reading: Partial<ImportMapping>): void {
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

  accept(accepted: Accepted): void {
    const upload = this.upload();
    const nodes = accepted.reading.material === 'network' ? this.nodes() : null;
    if (upload) this.takeIn([{ upload, nodes, ...accepted }]);
  }

  /** Every waiting file with the same columns is read in the same way, each as a source of its own or all as one. */
  acceptAll({ reading, asOne }: { reading: ImportMapping; asOne: boolean }): void {
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

  keepReading(name: string): void {
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

  leaveOut(): void {
    const upload = this.upload();
    const study = this.study();
    if (upload && study)
      this.api.dropUpload({ study: study.id, upload: upload.id }).subscribe({ error: () => undefined });
    this.uploads.update(([_, ...others]) => others);
    this.next();
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

  take(files: readonly File[]): void {
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
