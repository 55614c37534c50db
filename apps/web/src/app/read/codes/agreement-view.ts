import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatTooltip } from '@angular/material/tooltip';
import { AGREED, type Agreement, type CodeAgreement, type Sample } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { Api } from '../../api/api';
import { MessageText } from '../../shared/message-text';
import { stepRun } from '../../shared/step-run';
import { moment } from '../../shared/words';
import { CodeButtons } from './code-buttons';
import { Coding } from './coding';
import { draftOf } from '../../shared/draft';

/** Disagreements that are read at a time. */
const PAGE = 20;

/** How far coders agree on a sample, code by code, and what they disagree on, to be settled. */
@Component({
  selector: 'pt-agreement-view',
  imports: [CodeButtons, FormsModule, MatButton, MatCheckbox, MatProgressBar, MatTooltip, MessageText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './agreement-view.html',
  styleUrls: ['../common/cells.scss', './agreement-view.scss'],
})
export class AgreementView {
  readonly sample = input.required<Sample>();
  private readonly api = inject(Api);
  protected readonly coding = inject(Coding);
  protected readonly settling = stepRun();
  protected readonly keeping = stepRun();
  protected readonly kept = signal(false);
  protected readonly moment = moment;
  protected readonly count = formatCount;
  protected readonly counted = counted;
  /** Who coded something of the sample. */
  protected readonly coders = computed(() =>
    Object.keys(this.sample().coded).filter((coder) => coder !== AGREED),
  );
  protected readonly chosen = draftOf((): readonly string[] => this.coders().slice(0, 2));
  protected readonly found = signal<Agreement | null>(null);
  protected readonly error = signal<string | null>(null);
  private readonly sampleId = computed(() => this.sample().id);
  protected readonly entries = computed(() => this.found()?.disagreements.entries ?? []);
  private readonly settled = signal<ReadonlyMap<number, readonly number[]>>(new Map());

  constructor() {
    effect((onCleanup) => {
      this.sampleId();
      const coders = this.chosen();
      this.found.set(null);
      this.kept.set(false);
      this.settled.set(new Map());
      if (coders.length < 2) return;
      const reading = untracked(() => this.read(0));
      onCleanup(() => reading.unsubscribe());
    });
  }

  protected read(offset: number) {
    const asked = {
      sample: this.sampleId(),
      coders: [...this.chosen()],
      seed: 1,
      runs: 1000,
      offset,
      limit: PAGE,
    };
    this.error.set(null);
    return this.api.agreement({ study: this.coding.study() }, asked).subscribe({
      next: (found) =>
        this.found.update((before) =>
          before && offset > 0
            ? {
                ...found,
                disagreements: {
                  ...found.disagreements,
                  entries: [...before.disagreements.entries, ...found.disagreements.entries],
                },
              }
            : found,
        ),
      error: (error: Error) => this.error.set(error.message),
    });
  }

  protected isChosen(coder: string): boolean {
    return this.chosen().includes(coder);
  }

  protected toggle(coder: string, isWanted: boolean): void {
    this.chosen.update((before) => (isWanted ? [...before, coder] : before.filter((one) => one !== coder)));
  }

  protected value(number: number | null): string {
    return number === null ? '–' : number.toFixed(3).replace('-', '−');
  }

  protected interval({ interval }: CodeAgreement): string {
    return interval ? `${this.value(interval.low)} to ${this.value(interval.high)}` : '';
  }

  protected names(codes: readonly number[]): string {
    return codes.length === 0 ? 'none' : codes.map((code) => this.coding.nameOf(code)).join(', ');
  }

  /** What was agreed on for a message: here, or before. */
  protected agreedOn({
    message,
    agreed,
  }: Agreement['disagreements']['entries'][number]): readonly number[] | null {
    return this.settled().get(message.id) ?? agreed;
  }

  /** Agrees on the codes of a message, with one more or one less. */
  protected settle(entry: Agreement['disagreements']['entries'][number], code: number | null): void {
    const before = this.agreedOn(entry) ?? [];
    const codes =
      code === null ? [] : before.includes(code) ? before.filter((one) => one !== code) : [...before, code];
    this.agree(entry.message.id, codes);
  }

  protected agree(message: number, codes: readonly number[]): void {
    this.settling.start(
      this.coding.study(),
      'code-message',
      { message, coder: AGREED, codes: [...codes] },
      () => {
        this.settled.update((all) => new Map(all).set(message, codes));
        this.coding.read();
      },
    );
  }

  /** Measures it once more as a step, so that it stands in the logbook and in the methods text. */
  protected keep(): void {
    const asked = { sample: this.sampleId(), coders: [...this.chosen()], seed: 1, runs: 1000 };
    this.keeping.start(this.coding.study(), 'measure-agreement', asked, () => this.kept.set(true));
  }
}
