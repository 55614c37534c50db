import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { RoutineAnswer, RoutineQuestion, SentFile } from '@pebble/contract';
import { forkJoin } from 'rxjs';
import { Api } from '../api/api';
import { Busy } from '../shared/busy';
import { counted } from '../shared/words';

/** One question of a routine, with what holds where nobody says otherwise. */
@Component({
  selector: 'pt-question-field',
  imports: [Busy, FormsModule, MatButton, MatCheckbox, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (question().kind) {
      @case ('file') {
        <span class="field">{{ question().ask }}</span>
        <button matButton="outlined" type="button" [ptBusy]="isSending()" (click)="files.click()">
          {{ chosen() === '' ? 'Choose files' : 'Choose others' }}
        </button>
        <input #files type="file" multiple hidden [attr.aria-label]="question().ask" (change)="send(files)" />
        <span class="faint">{{ isSending() ? 'Being read …' : chosen() }}</span>
        @if (problem(); as why) {
          <p class="error" role="alert">{{ why }}</p>
        }
      }
      @case ('yes or no') {
        <mat-checkbox [ngModel]="value()" (ngModelChange)="answered.emit($event)">{{ question().ask }}</mat-checkbox>
      }
      @case ('choice') {
        <label class="field"
          >{{ question().ask }}
          <mat-form-field
            ><select matNativeControl [ngModel]="value()" (ngModelChange)="answered.emit($event)">
              @for (one of choices(); track one) {
                <option [value]="one">{{ one }}</option>
              }
            </select></mat-form-field
          ></label
        >
      }
      @default {
        <label class="field"
          >{{ question().ask }}
          <mat-form-field
            ><input
              matInput
              [type]="type()"
              [placeholder]="hint()"
              [ngModel]="shown()"
              (ngModelChange)="typed($event)" /></mat-form-field
        ></label>
      }
    }
  `,
  styleUrl: '../publish/fields.scss',
  styles: `
    :host {
      display: block;
      max-width: 420px;
      margin: 8px 0;
    }
    span.field {
      margin: 0 0 4px;
    }
    button + input + span {
      margin-left: 10px;
    }
  `,
})
export class QuestionField {
  readonly study = input.required<string>();
  readonly question = input.required<RoutineQuestion>();
  readonly value = input.required<RoutineAnswer | undefined>();
  readonly answered = output<RoutineAnswer>();
  private readonly api = inject(Api);
  protected readonly isSending = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly chosen = computed(() => {
    const value = this.value();
    const names = Array.isArray(value) ? (value as SentFile[]).map(({ file }) => file) : [];
    return names.length > 2 ? `${names[0]} and ${counted(names.length - 1, 'other file')}` : names.join(', ');
  });
  protected readonly choices = computed(() => {
    const question = this.question();
    return question.kind === 'choice' ? question.choices : [];
  });
  protected readonly type = computed(
    () => ({ number: 'number', day: 'date' })[this.question().kind as 'number' | 'day'] ?? 'text',
  );
  protected readonly hint = computed(
    () => ({ number: 'none', list: 'several, apart by |' })[this.question().kind as 'number' | 'list'] ?? '',
  );
  protected readonly shown = computed(() => {
    const value = this.value();
    return Array.isArray(value) ? value.join(' | ') : (value ?? '');
  });

  protected typed(typed: string | number | null): void {
    const text = String(typed ?? '').trim();
    switch (this.question().kind) {
      case 'number':
        return this.answered.emit(text === '' ? null : Number(text));
      case 'day':
        return this.answered.emit(text === '' ? null : text);
      case 'list':
        return this.answered.emit(
          text
            .split('|')
            .map((one) => one.trim())
            .filter((one) => one !== ''),
        );
      default:
        return this.answered.emit(text);
    }
  }

  /** Files are sent at once: what does not fit is said before the routine runs. */
  protected send(input: HTMLInputElement): void {
    const files = [...(input.files ?? [])];
    // The same file can be chosen again.
    input.value = '';
    if (files.length === 0) return;
    this.isSending.set(true);
    this.problem.set(null);
    forkJoin(files.map((file) => this.api.sendBytes({ study: this.study() }, { bytes: file }))).subscribe({
      next: (sent) => {
        this.isSending.set(false);
        this.answered.emit(sent.map(({ id }, i) => ({ upload: id, file: files[i].name })));
      },
      error: (error: Error) => {
        this.isSending.set(false);
        this.problem.set(error.message);
      },
    });
  }
}
