import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { InStepWeave } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Accounts tied by posting the same at the same time. */
@Component({
  selector: 'pt-step-sentence',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Accounts are tied when they post the same
    <mat-form-field><select matNativeControl aria-label="The same" [ngModel]="w.same" (ngModelChange)="change({ same: $event })">
      <option value="text">text</option>
      <option value="link">link</option>
      <option value="hashtags">set of hashtags</option>
    </select></mat-form-field>
    within
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Seconds"
      [ngModel]="w.seconds"
      (ngModelChange)="change({ seconds: atLeastOne($event) })" /></mat-form-field>
    {{ w.seconds === 1 ? 'second' : 'seconds' }}, with at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Different ones at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })" /></mat-form-field>
    different ones<pt-period-fields [period]="w" (changed)="change($event)" />
    <mat-checkbox [ngModel]="w.reposts" (ngModelChange)="change({ reposts: $event })">Reposts
      count too.</mat-checkbox>
  `,
  styleUrl: './sentence.scss',
})
export class StepSentence {
  readonly weave = model.required<InStepWeave>();
  protected readonly atLeastOne = atLeastOne;

  protected change(part: Partial<InStepWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
