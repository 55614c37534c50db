import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { WordsField } from './words-field';

/** The title of an outline, and below it its note as soon as there is a title; what stands before the title is given as its content. */
@Component({
  selector: 'pt-title-fields',
  imports: [WordsField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <pt-words-field
      [label]="'Title of ' + of()"
      [usual]="usual() ?? 'title of ' + of()"
      [words]="title()"
      (written)="titled.emit($event)"
      ><ng-content
    /></pt-words-field>
    @if (title() || note()) {
      <pt-words-field
        class="note"
        [label]="'Note of ' + of()"
        usual="a note below the title"
        [longest]="300"
        [words]="note()"
        (written)="noted.emit($event)"
      />
    }
  `,
  styles: `
    :host {
      flex: 1;
      min-width: 0;
    }
    .note {
      display: block;
      padding-left: 30px;
    }
  `,
})
export class TitleFields {
  /** What is outlined, in words. */
  readonly of = input.required<string>();
  /** Its title where none is written. */
  readonly usual = input<string>();
  readonly title = input('');
  readonly note = input('');
  /** What was written; empty for none. */
  readonly titled = output<string>();
  readonly noted = output<string>();
}
