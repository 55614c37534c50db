import { ChangeDetectionStrategy, Component, inject, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { Credits } from './credits';

/** Title, authors and licence of what goes out; what else belongs to them stands between. */
@Component({
  selector: 'pt-credit-fields',
  imports: [FormsModule, MatFormField, MatInput, MatLabel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field>
      <mat-label>Title</mat-label>
      <input
        matInput
        maxlength="300"
        [placeholder]="usualTitle()"
        [ngModel]="title()"
        (ngModelChange)="title.set($event)"
      />
    </mat-form-field>
    <ng-content />
    <mat-form-field>
      <mat-label>Authors</mat-label>
      <input matInput maxlength="300" [ngModel]="credits.author()" (ngModelChange)="credits.author.set($event)" />
    </mat-form-field>
    <mat-form-field>
      <mat-label>Licence</mat-label>
      <input
        matInput
        maxlength="300"
        placeholder="CC BY 4.0"
        [ngModel]="credits.licence()"
        (ngModelChange)="credits.licence.set($event)"
      />
    </mat-form-field>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 12px;
      align-items: end;
      margin: 14px 0;
    }
    mat-form-field {
      width: 100%;
    }
    @media (max-width: 560px) {
      :host {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class CreditFields {
  readonly title = model.required<string>();
  /** What it is called where nothing is written. */
  readonly usualTitle = input.required<string>();
  protected readonly credits = inject(Credits);
}
