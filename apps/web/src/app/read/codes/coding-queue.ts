import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import type { Queue, Sample } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { Api } from '../../api/api';
import { MessageText } from '../../shared/message-text';
import { stepRun } from '../../shared/step-run';
import { moment } from '../../shared/words';
import { CodeButtons, KEYS } from './code-buttons';
import { Coding } from './coding';

type Entry = Queue['entries'][number];

/** The messages of a sample one by one: keys 1 to 9 give codes, Enter keeps them and goes on. */
@Component({
  selector: 'pt-coding-queue',
  imports: [CodeButtons, MatButton, MatProgressBar, MessageText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'press($event)' },
  template: `
    @if (error(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    @if (keeping.problem(); as message) {
      <p class="error" role="alert">{{ message }} What you chose is still here.</p>
    }
    <mat-progress-bar mode="determinate" [value]="share()" [attr.aria-label]="'Coded by ' + coding.coder()" />
    <p class="soft" role="status">
      {{ count(coded()) }} of {{ counted(total(), 'message') }} coded by {{ coding.coder() }}
    </p>
    @if (entry(); as e) {
      <article aria-label="Message to be coded">
        <small
          >{{ e.place + 1 }} · {{ e.message.author.handle }} · {{ moment(e.message.time) }} · {{ e.message.kind }}
          @if (e.message.parent?.handle; as handle) {
            of {{ handle }}
          }</small
        >
        @if (e.message.subject; as subject) {
          <h3 dir="auto">{{ subject }}</h3>
        }
        <p class="text"><pt-message-text [message]="e.message" [reached]="false" /></p>
      </article>
      <pt-code-buttons [given]="given()" [hasKeys]="true" (toggled)="toggle($event)" />
      <div class="go">
        <button matButton [disabled]="place() === 0" (click)="go(place() - 1)">Back</button>
        <button matButton="filled" [disabled]="keeping.busy()" (click)="keep()">
          {{ given().length === 0 ? 'None of them, next' : 'Keep, next' }}
        </button>
        <button matButton [disabled]="place() + 1 >= total()" (click)="go(place() + 1)">Skip</button>
        @if (e.codes !== null) {
          <span class="soft">coded already</span>
          <button matButton (click)="takeBack()">Take it back</button>
        }
      </div>
      <p class="faint">Keys: 1 to 9 for the first nine codes, Enter keeps and goes on, ← and → go without keeping.</p>
    } @else if (total() > 0 && coded() === total()) {
      <p class="empty">All of “{{ sample().name }}” are coded by {{ coding.coder() }}.</p>
    }
  `,
  styleUrl: '../common/cells.scss',
  styles: `
    article {
      max-width: 74ch;
      padding: 4px 0 4px 14px;
    }
    .text {
      font: 19px/1.5 var(--serif);
      min-height: 5em;
    }
    .go {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 12px;
      margin-top: 10px;
    }
  `,
})
export class CodingQueue {
  readonly sample = input.required<Sample>();
  /** Something was coded. */
  readonly changed = output();
  private readonly api = inject(Api);
  protected readonly coding = inject(Coding);
  protected readonly keeping = stepRun();
  protected readonly moment = moment;
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly error = signal<string | null>(null);
  protected readonly total = signal(0);
  protected readonly coded = signal(0);
  protected readonly place = signal(0);
  protected readonly entry = signal<Entry | null>(null);
  /** What is chosen for the message; what was kept before, at first. */
  protected readonly given = linkedSignal((): readonly number[] => this.entry()?.codes ?? []);
  protected readonly share = computed(() => (this.total() === 0 ? 0 : (100 * this.coded()) / this.total()));
  private readonly sampleId = computed(() => this.sample().id);
  /** Keys that were pressed while a message was kept or on its way: they are for the next one. */
  private ahead: string[] = [];
  private isComing = false;

  constructor() {
    // A sample is opened where this coder has come to.
    effect(() => {
      const sample = this.sampleId();
      const coder = this.coding.coder();
      untracked(() => {
        this.entry.set(null);
        this.total.set(0);
        this.api.queue({ study: this.coding.study(), sample }, { coder, offset: 0, limit: 1 }).subscribe({
          next: ({ total, coded, next }) => {
            if (sample !== this.sampleId() || coder !== this.coding.coder()) return;
            this.total.set(total);
            this.coded.set(coded);
            if (total > 0 && next !== null) this.go(next);
          },
          error: (error: Error) => this.error.set(error.message),
        });
      });
    });
  }

  /** Shows the message at a place. */
  protected go(place: number): void {
    if (place < 0 || place >= this.total()) return;
    const sample = this.sampleId();
    const coder = this.coding.coder();
    this.place.set(place);
    this.error.set(null);
    this.isComing = true;
    this.api.queue({ study: this.coding.study(), sample }, { coder, offset: place, limit: 1 }).subscribe({
      next: ({ entries, total, coded }) => {
        if (place !== this.place() || sample !== this.sampleId()) return;
        this.total.set(total);
        this.coded.set(coded);
        this.isComing = false;
        this.entry.set(entries.at(0) ?? null);
        this.catchUp();
        if (entries.length === 0) this.error.set('This message is not there now: its source was taken out.');
      },
      error: (error: Error) => this.error.set(error.message),
    });
  }

  protected toggle(code: number): void {
    this.given.update((before) =>
      before.includes(code) ? before.filter((one) => one !== code) : [...before, code],
    );
  }

  /** Keeps what is chosen, and goes on to the next one that this coder has not coded. */
  protected keep(): void {
    const entry = this.entry();
    if (entry && !this.keeping.busy()) this.write(entry, this.given(), () => this.goOn(entry.place));
  }

  protected takeBack(): void {
    const entry = this.entry();
    if (entry) this.write(entry, null, () => this.go(entry.place));
  }

  private write({ message }: Entry, codes: readonly number[] | null, done: () => void): void {
    const asked = { message: message.id, coder: this.coding.coder(), codes: codes && [...codes] };
    this.keeping.start(this.coding.study(), 'code-message', asked, () => {
      this.changed.emit();
      done();
    });
  }

  private goOn(place: number): void {
    if (place + 1 < this.total()) {
      this.go(place + 1);
      return;
    }
    // At the end: back to what was skipped, if anything was.
    const coder = this.coding.coder();
    this.api
      .queue({ study: this.coding.study(), sample: this.sampleId() }, { coder, offset: 0, limit: 1 })
      .subscribe({
        next: ({ coded, next }) => {
          this.coded.set(coded);
          if (next === null) this.entry.set(null);
          else this.go(next);
        },
        error: (error: Error) => this.error.set(error.message),
      });
  }

  protected press(event: KeyboardEvent): void {
    const { key, target, ctrlKey, altKey, metaKey } = event;
    if (ctrlKey || altKey || metaKey || !this.entry()) return;
    if (target instanceof HTMLElement && /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
    // Enter on a button presses that button; on a code it keeps, as everywhere else: Space gives and takes codes.
    const at = target instanceof HTMLElement ? target.closest('button, a, [role="radio"]') : null;
    if (key === 'Enter' && at && !at.closest('pt-code-buttons')) return;
    if (!(key === 'Enter' || key === 'ArrowLeft' || key === 'ArrowRight' || this.codeOf(key))) return;
    event.preventDefault();
    if (this.isComing || this.keeping.busy()) this.ahead.push(key);
    else this.take(key);
  }

  private codeOf(key: string): number | undefined {
    const at = Number(key);
    return at >= 1 && at <= KEYS ? this.coding.codes().at(at - 1)?.id : undefined;
  }

  private take(key: string): void {
    const code = this.codeOf(key);
    if (code !== undefined) this.toggle(code);
    else if (key === 'Enter') this.keep();
    else this.go(this.place() + (key === 'ArrowLeft' ? -1 : 1));
  }

  private catchUp(): void {
    while (this.ahead.length > 0 && !this.isComing && !this.keeping.busy()) this.take(this.ahead.shift()!);
  }
}
