import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { TidyKind, type StepParameters } from '@pebble/contract';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { Busy } from '../shared/busy';

/** Finds names in the texts: by the library, or those of a list. */
@Component({
  selector: 'pt-name-finding',
  imports: [MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <button matButton="outlined" [ptBusy]="busy()" (click)="byLibrary()">
        Find people, organisations and places
      </button>
      <span class="soft">in English texts, by the compromise library; right in most cases, so review what it finds</span>
      <button matButton [attr.aria-expanded]="listing()" (click)="listing.set(!listing())">
        Find names of a list
      </button>
    </div>
    @if (listing()) {
      <div class="row">
        <label class="field"
          >{{ match() === 'patterns' ? 'Patterns' : 'Names' }}, one a line
          <mat-form-field><textarea matInput rows="3" [ngModel]="names()" (ngModelChange)="names.set($event)"></textarea></mat-form-field>
        </label>
        <label class="field"
          >They stand as
          <mat-form-field><select matNativeControl [ngModel]="match()" (ngModelChange)="match.set($event)">
            <option value="words">whole words</option>
            <option value="beginnings">beginnings of words</option>
            <option value="patterns">patterns (regular expressions)</option>
          </select></mat-form-field>
        </label>
        <label class="field"
          >They are
          <mat-form-field><select matNativeControl [ngModel]="kind()" (ngModelChange)="kind.set($event)">
            @for (one of kinds; track one) {
              <option [value]="one">{{ one }}</option>
            }
          </select></mat-form-field>
        </label>
        <button matButton="filled" [disabled]="list().length === 0" [ptBusy]="busy()" (click)="byList()">Find them</button>
      </div>
    }
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 12px;
      margin-bottom: 6px;
    }
    mat-form-field:has(textarea) {
      width: 300px;
    }
  `,
})
export class NameFinding {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  readonly study = input.required<string>();
  readonly found = output<void>();
  protected readonly kinds = TidyKind.options;
  protected readonly listing = signal(false);
  protected readonly names = signal('');
  protected readonly match = signal<StepParameters<'find-names'>['match']>('words');
  protected readonly kind = signal<TidyKind>('unknown');
  protected readonly busy = signal(false);
  protected readonly problem = signal<string | null>(null);

  protected list(): string[] {
    const lines = this.names().split('\n');
    return lines.map((line) => line.trim()).filter((line) => line.length > 1);
  }

  protected byLibrary(): void {
    this.send({ by: 'library', names: [], match: 'words', kind: 'unknown' });
  }

  protected byList(): void {
    this.send({ by: 'list', names: this.list(), match: this.match(), kind: this.kind() });
  }

  private send(parameters: StepParameters<'find-names'>): void {
    this.busy.set(true);
    this.problem.set(null);
    this.api.step(this.study(), 'find-names', parameters).subscribe({
      next: ({ state, error, sentence }) => {
        this.busy.set(false);
        if (state === 'done') this.notices.say(sentence);
        else this.problem.set(error ?? 'The search was stopped. Nothing of it was kept.');
        this.found.emit();
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.problem.set(error.message);
      },
    });
  }
}
