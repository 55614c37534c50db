import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { PlateList } from '../map/plates/plate-list';
import { FigureDraft } from './figure-draft';
import { PlateParts } from './plate-parts';

/** Which plates stand on the page, and how: beside each other, with what caption. */
@Component({
  selector: 'pt-page-fields',
  imports: [FormsModule, MatButton, MatFormField, MatInput, MatLabel, PlateList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <pt-plate-list [study]="study()" [chosen]="parts.ids()" (chosenChange)="parts.chosen.set($event)" />
    @if (parts.ids().length > 0) {
      <label class="field"
        >Beside each other
        <mat-form-field
          ><select
            matNativeControl
            aria-label="Plates beside each other"
            [ngModel]="draft.columns()"
            (ngModelChange)="draft.columns.set($event)"
          >
            <option [ngValue]="null">as goes well</option>
            @for (count of [1, 2, 3, 4, 5, 6]; track count) {
              <option [ngValue]="count">{{ count }}</option>
            }
          </select></mat-form-field
        ></label
      >
      @if (draft.withCaption()) {
        <mat-form-field class="caption">
          <mat-label>Caption</mat-label>
          <textarea
            matInput
            rows="5"
            maxlength="10000"
            [ngModel]="draft.captionLine()"
            (ngModelChange)="draft.ownCaption.set($event)"
          ></textarea>
        </mat-form-field>
        @if (draft.ownCaption() !== null) {
          <button matButton (click)="draft.ownCaption.set(null)">As suggested</button>
        }
      }
    }
  `,
  styleUrl: './fields.scss',
})
export class PageFields {
  readonly study = input.required<string>();
  protected readonly parts = inject(PlateParts);
  protected readonly draft = inject(FigureDraft);
}
