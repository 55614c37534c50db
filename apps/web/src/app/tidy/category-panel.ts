import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { NewDecision, RuleField, Step, TidySort } from '@pebble/contract';
import { SORT_WORDS } from '@pebble/core/first';
import { switchMap, throwError, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { counted } from '../shared/words';
import { Busy } from '../shared/busy';

/** Categories of the researcher's own: given by hand to what is marked, by a rule, or by a table. */
@Component({
  selector: 'pt-category-panel',
  imports: [MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let words = sortWords();
    <div class="line">
      <span>Give the</span>
      <mat-form-field class="name"><input matInput
        aria-label="Category"
        placeholder="category, such as role"
        maxlength="60"
        list="categories"
        [ngModel]="category()"
        (ngModelChange)="category.set($event)" /></mat-form-field>
      <datalist id="categories">
        @for (one of known(); track one) {
          <option [value]="one"></option>
        }
      </datalist>
      <mat-form-field class="name"><input matInput
        aria-label="Which of the category"
        placeholder="which, such as pilot"
        maxlength="200"
        [ngModel]="value()"
        (ngModelChange)="value.set($event)" /></mat-form-field>
      <mat-form-field><select matNativeControl aria-label="To which" [ngModel]="to()" (ngModelChange)="to.set($event)">
        <option value="marked">to {{ marked().length ? 'the ' + count() + ' that are marked' : 'what is marked (Space)' }}</option>
        <option value="rule">to those of which …</option>
      </select></mat-form-field>
      @if (to() === 'rule') {
        <mat-form-field><select matNativeControl aria-label="Field" [ngModel]="field()" (ngModelChange)="field.set($event)">
          @for (one of fields(); track one[0]) {
            <option [value]="one[0]">{{ one[1] }}</option>
          }
        </select></mat-form-field>
        contains
        <mat-form-field><input matInput
          aria-label="Contains"
          placeholder="harbour | quay"
          [ngModel]="contains()"
          (ngModelChange)="contains.set($event)" /></mat-form-field>
      }
      <button matButton="filled" [disabled]="!isReady()" (click)="give()">Give</button>
      @if (to() === 'marked' && marked().length > 0 && category().trim()) {
        <button matButton (click)="takeAway()">Take it away</button>
      }
      <span class="or">or</span>
      <button matButton [ptBusy]="busy()" (click)="file.click()">from a table …</button>
      <input
        #file
        hidden
        type="file"
        accept=".csv,.tsv,.xlsx"
        aria-label="A table of categories"
        (change)="fromTable(file)"
      />
    </div>
    <p class="soft">
      A table names the {{ words[0] }} in its first column; every other column is a category. Networks carry categories
      as columns of their nodes.
    </p>
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    .line {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 7px;
    }
    .name {
      width: 178px;
    }
    p {
      margin: 3px 0 0;
      font-size: 13px;
    }
  `,
})
export class CategoryPanel {
  readonly study = input.required<string>();
  readonly sort = input.required<TidySort>();
  /** Keys of the things that are marked. */
  readonly marked = input.required<readonly string[]>();
  /** Categories that were given before. */
  readonly known = input<readonly string[]>([]);
  readonly decided = output<NewDecision[]>();
  /** Something was given by a rule or a table; the ids of its decisions. */
  readonly given = output<number[]>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  protected readonly category = signal('');
  protected readonly value = signal('');
  protected readonly to = signal<'marked' | 'rule'>('marked');
  protected readonly field = signal<RuleField>('label');
  protected readonly contains = signal('');
  protected readonly busy = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly sortWords = computed(() => SORT_WORDS[this.sort()]);
  protected readonly fields = computed((): readonly (readonly [RuleField, string])[] =>
    this.sort() === 'account'
      ? [
          ['description', 'the description'],
          ['label', 'the handle'],
          ['name', 'the name'],
          ['location', 'the location'],
        ]
      : [['label', `the ${this.sortWords()[0]}`]],
  );

  protected count(): string {
    return counted(this.marked().length, ...this.sortWords());
  }

  protected isReady(): boolean {
    const isNamed = this.category().trim() !== '' && this.value().trim() !== '';
    const hasAim = this.to() === 'marked' ? this.marked().length > 0 : this.contains().trim() !== '';
    return !this.busy() && isNamed && hasAim;
  }

  protected give(): void {
    const [name, value] = [this.category().trim(), this.value().trim()];
    if (this.to() === 'marked') {
      this.decided.emit(this.marked().map((key) => ({ key, verdict: { verdict: 'category', name, value } })));
      return;
    }
    const rule = { field: this.field(), contains: this.contains(), category: name, value };
    this.run(this.api.step(this.study(), 'categorise-by-rule', { sort: this.sort(), ...rule }));
  }

  protected takeAway(): void {
    const verdict = { verdict: 'category', name: this.category().trim(), value: '' } as const;
    this.decided.emit(this.marked().map((key) => ({ key, verdict })));
  }

  protected fromTable(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    const study = this.study();
    const take = (upload: string): Observable<Step> =>
      this.api.previewAgain({ study, upload }, { file: file.name, reading: { material: 'nodes' } }).pipe(
        switchMap(({ reading }) => {
          const columns = reading.columns.map((column, i) => ({
            ...column,
            role: i === 0 ? ('node' as const) : ('attribute' as const),
          }));
          const asked = { sort: this.sort(), upload, file: file.name, reading: { ...reading, columns } };
          return this.api.step(study, 'categorise-by-table', asked);
        }),
      );
    this.run(
      this.api
        .upload({ study }, { bytes: file, name: file.name })
        .pipe(
          switchMap(({ uploads, refused }) =>
            uploads[0]
              ? take(uploads[0].id)
              : throwError(() => new Error(refused[0]?.reason ?? 'The file holds nothing.')),
          ),
        ),
    );
  }

  private run(step: Observable<Step>): void {
    this.busy.set(true);
    this.problem.set(null);
    step.subscribe({
      next: ({ state, error, sentence, result }) => {
        this.busy.set(false);
        if (state !== 'done') return this.problem.set(error);
        this.notices.say(sentence);
        this.given.emit((result?.['decisions'] ?? []) as number[]);
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.problem.set(error.message);
      },
    });
  }
}
