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
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import type { SpreadOf, SpreadOffers, SpreadOffersQuery } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { Api } from '../../api/api';

type What = SpreadOffersQuery['what'];

const WORDS: readonly (readonly [what: What, title: string])[] = [
  ['hashtag', 'a hashtag'],
  ['link', 'a link'],
  ['text', 'a text, wherever it stands alike'],
  ['message', 'a message, and what passes it on'],
];

/** Milliseconds after the last letter before what is typed is looked for. */
const PAUSE = 250;

/** What spread: that which most accounts have first, or what is looked for. */
@Component({
  selector: 'pt-spread-picker',
  imports: [FormsModule, MatFormField, MatInput, MatProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field class="whole"
      ><select matNativeControl aria-label="What spread" [ngModel]="what()" (ngModelChange)="choose($event)">
        @for (one of words; track one[0]) {
          <option [value]="one[0]">{{ one[1] }}</option>
        }
      </select></mat-form-field
    >
    <mat-form-field class="whole"
      ><input matInput aria-label="Find what spread" placeholder="find" [ngModel]="typed()" (ngModelChange)="typed.set($event)"
    /></mat-form-field>
    @if (error(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    @if (offers(); as found) {
      <ul aria-label="What many accounts have">
        @for (one of found.offers; track key(one.of)) {
          <li [class.chosen]="key(one.of) === chosen()">
            <button class="evidence" dir="auto" [attr.aria-pressed]="key(one.of) === chosen()" (click)="picked.emit(one.of)">{{ one.words }}</button>
            <span class="number soft">{{ count(one.accounts) }}</span>
          </li>
        } @empty {
          <li class="faint">{{ typed() ? 'nothing is called so' : 'nothing that more than one account has' }}</li>
        }
      </ul>
      @if (found.total > found.offers.length) {
        <p class="faint">
          The {{ found.offers.length }} that most accounts have, of {{ count(found.total) }}; find others by their words.
        </p>
      }
    } @else if (!error()) {
      <mat-progress-bar mode="indeterminate" aria-label="Looking for what many accounts have" />
    }
  `,
  styleUrl: '../common/cells.scss',
  styles: `
    .whole {
      width: 100%;
      margin-bottom: 6px;
    }
    li {
      padding: 1px 6px;
    }
    .chosen {
      background: var(--thread-wash);
      border-radius: 4px;
    }
    .evidence {
      flex: 1;
      min-width: 0;
      padding: 2px 0;
      color: inherit;
      text-align: start;
      overflow-wrap: anywhere;
    }
      `,
})
export class SpreadPicker {
  readonly study = input.required<string>();
  readonly of = input.required<SpreadOf | null>();
  readonly picked = output<SpreadOf>();
  private readonly api = inject(Api);
  protected readonly words = WORDS;
  protected readonly count = formatCount;
  protected readonly key = (of: SpreadOf): string => JSON.stringify(of);
  private readonly chosenWhat = signal<What | null>(null);
  protected readonly what = computed((): What => this.chosenWhat() ?? this.of()?.what ?? 'hashtag');
  protected readonly typed = signal('');
  protected readonly offers = signal<SpreadOffers | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly chosen = computed(() => {
    const of = this.of();
    return of ? this.key(of) : '';
  });

  constructor() {
    effect((onCleanup) => {
      const asked = { what: this.what(), search: this.typed() };
      const study = this.study();
      this.error.set(null);
      let reading: { unsubscribe(): void } | null = null;
      const waiting = setTimeout(
        () => {
          reading = this.api.spreadOffers({ study }, asked).subscribe({
            next: (offers) => {
              this.offers.set(offers);
              const [first] = offers.offers;
              // The first one is shown, so that there is something to read.
              if (untracked(this.of) === null && first) this.picked.emit(first.of);
            },
            error: (error: Error) => this.error.set(error.message),
          });
        },
        asked.search === '' ? 0 : PAUSE,
      );
      onCleanup(() => {
        clearTimeout(waiting);
        reading?.unsubscribe();
      });
    });
  }

  protected choose(what: What): void {
    this.offers.set(null);
    this.typed.set('');
    this.chosenWhat.set(what);
  }
}
