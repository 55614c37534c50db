import { ChangeDetectionStrategy, Component, computed, input, model, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import {
  MatExpansionPanel,
  MatExpansionPanelHeader,
  MatExpansionPanelTitle,
} from '@angular/material/expansion';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { FigureText } from '@pebble/core';

/** What is told of the figure to those who cannot see it: suggested from the map, and to be written otherwise. */
@Component({
  selector: 'pt-told-fields',
  imports: [
    FormsModule,
    MatButton,
    MatExpansionPanel,
    MatExpansionPanelHeader,
    MatExpansionPanelTitle,
    MatFormField,
    MatInput,
    MatLabel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-expansion-panel class="told mat-elevation-z0">
      <mat-expansion-panel-header>
        <mat-panel-title>For those who cannot see it</mat-panel-title>
      </mat-expansion-panel-header>
      <p class="soft">Stands in each file, and is read aloud by screen readers.</p>
      <mat-form-field>
        <mat-label>In a sentence</mat-label>
        <textarea matInput rows="3" maxlength="400" [ngModel]="told().short" (ngModelChange)="write({ short: $event })"></textarea>
      </mat-form-field>
      <mat-form-field>
        <mat-label>What can be read from it</mat-label>
        <textarea matInput rows="9" maxlength="4000" [ngModel]="told().long" (ngModelChange)="write({ long: $event })"></textarea>
      </mat-form-field>
      <p class="acts">
        <button matButton="outlined" (click)="saved.emit()">Save as text</button>
        @if (own()) {
          <button matButton (click)="own.set(null)">As suggested</button>
        }
      </p>
    </mat-expansion-panel>
  `,
  styles: `
    mat-expansion-panel-header {
      padding: 0 6px 0 2px;
    }
    mat-form-field {
      width: 100%;
      margin-bottom: 8px;
    }
    textarea {
      font-size: 13px;
      line-height: 1.4;
    }
    .acts {
      display: flex;
      gap: 8px;
    }
  `,
})
export class ToldFields {
  readonly suggested = input.required<FigureText>();
  /** Written otherwise; null where the suggestion holds. */
  readonly own = model.required<FigureText | null>();
  readonly saved = output();
  protected readonly told = computed(() => this.own() ?? this.suggested());

  protected write(words: Partial<FigureText>): void {
    this.own.set({ ...this.told(), ...words });
  }
}
