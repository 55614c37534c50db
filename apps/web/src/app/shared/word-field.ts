import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';

/** A field for words by which something is looked for while they are typed. */
@Component({
  selector: 'pt-word-field',
  imports: [MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<mat-form-field
    ><input
      matInput
      type="search"
      [placeholder]="example() || label()"
      [attr.aria-label]="label()"
      [value]="words()"
      (input)="words.set($any($event.target).value)"
  /></mat-form-field>`,
  styles: `
    :host {
      display: block;
    }
    mat-form-field {
      width: 100%;
    }
  `,
})
export class WordField {
  readonly label = input.required<string>();
  /** What can be typed, where the label does not say it. */
  readonly example = input('');
  readonly words = model('');
}
