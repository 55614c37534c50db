import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { RoutineAnswer, RoutineQuestion } from '@pebble/contract';
import { Busy } from '../shared/busy';
import { counted } from '../shared/words';

/** A question, and the answers to it that are to be tried. */
export interface Variation {
  readonly question: string;
  readonly values: RoutineAnswer[];
}

/** Chooses a question and several answers to it: would another choice have told another story? */
@Component({
  selector: 'pt-variation-form',
  imports: [Busy, FormsModule, MatButton, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      Would another choice have told another story? It is run once for each value; what the question does not touch is
      done once.
    </p>
    <label class="field"
      >What is varied
      <mat-form-field
        ><select matNativeControl [ngModel]="chosen()" (ngModelChange)="chosen.set($event)">
          @for (one of askable(); track one.name) {
            <option [value]="one.name">{{ one.ask }}</option>
          }
        </select></mat-form-field
      ></label
    >
    @if (question()?.kind === 'list') {
      <label class="field"
        >Lists, one on each line, their parts apart by |; “none” for an empty one
        <mat-form-field
          ><textarea
            matInput
            rows="4"
            placeholder="none&#10;one | another"
            [ngModel]="text()"
            (ngModelChange)="text.set($event)"
          ></textarea>
        </mat-form-field>
      </label>
    } @else {
      <label class="field"
        >Values, apart by |
        <mat-form-field
          ><input matInput [placeholder]="hint()" [ngModel]="text()" (ngModelChange)="text.set($event)"
        /></mat-form-field>
      </label>
    }
    <button
      matButton="outlined"
      [disabled]="!canRun() || values().length < 2"
      [ptBusy]="busy()"
      (click)="asked.emit({ question: chosen(), values: values() })"
    >
      Run with {{ counted(values().length, 'value') }}
    </button>
  `,
  styleUrl: '../publish/fields.scss',
  styles: `
    :host {
      display: block;
      max-width: 420px;
    }
  `,
})
export class VariationForm {
  readonly questions = input.required<readonly RoutineQuestion[]>();
  readonly canRun = input.required<boolean>();
  readonly busy = input.required<boolean>();
  readonly asked = output<Variation>();
  protected readonly counted = counted;
  protected readonly askable = computed(() => this.questions().filter(({ kind }) => kind !== 'file'));
  protected readonly chosen = linkedSignal(() => this.askable().at(0)?.name ?? '');
  protected readonly text = signal('');
  protected readonly question = computed(() => this.askable().find(({ name }) => name === this.chosen()));
  protected readonly hint = computed(
    () =>
      ({ number: '1 | 2 | 3', 'yes or no': 'yes | no', day: '2026-03-01 | 2026-04-01' })[
        this.question()?.kind as 'number' | 'yes or no' | 'day'
      ] ?? 'one | another',
  );
  protected readonly values = computed((): RoutineAnswer[] => {
    const kind = this.question()?.kind;
    if (kind === 'list')
      return [...new Set(partsOf(this.text(), '\n'))].map((line) =>
        line === 'none' ? [] : partsOf(line, '|'),
      );
    const written = partsOf(this.text(), '|');
    return [...new Set(written)].map((one): RoutineAnswer => {
      if (kind === 'number') return one === 'none' ? null : Number(one.replace(',', '.'));
      if (kind === 'yes or no') return one === 'yes';
      return kind === 'day' && one === 'none' ? null : one;
    });
  });
}

function partsOf(text: string, between: string): string[] {
  return text
    .split(between)
    .map((one) => one.trim())
    .filter((one) => one !== '');
}
