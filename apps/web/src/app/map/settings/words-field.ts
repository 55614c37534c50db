import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';

/** A field for words of one's own in place of the usual ones; what stands before it is given as its content. */
@Component({
  selector: 'pt-words-field',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    <label
      ><ng-content />
      <mat-form-field class="wide"><input matInput
        [attr.maxlength]="longest()"
        [attr.aria-label]="label()"
        [placeholder]="usual()"
        [ngModel]="words()"
        (change)="written.emit($any($event.target).value.trim())" /></mat-form-field></label>
  `,
  styles: `
    :host {
      flex: 1;
      min-width: 0;
    }
    label {
      margin: 3px 0;
    }
  `,
})
export class WordsField {
  readonly label = input.required<string>();
  readonly usual = input('');
  readonly words = input('');
  /** Signs that can be written at most. */
  readonly longest = input(100);
  /** What was written, without blanks at its ends; empty for the usual words. */
  readonly written = output<string>();
}
