import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { FollowWeave } from '@pebble/contract';
import { atLeastOne } from './numbers';

/** Accounts tied by who follows whom. */
@Component({
  selector: 'pt-follow-sentence',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    Accounts are tied when one follows another. Only followers of at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Listed accounts that they follow at least"
      [ngModel]="weave().listsAtLeast"
      (ngModelChange)="change({ listsAtLeast: atLeastOne($event) })" /></mat-form-field>
    of the listed accounts are shown.
    <mat-checkbox
        [ngModel]="weave().sorts === 'two'"
        (ngModelChange)="change({ sorts: $event ? 'two' : 'one' })">Followers and lists are two sorts of nodes (a two-mode network, of which either sort can be tied by the other
      afterwards).</mat-checkbox>
  `,
  styleUrl: './sentence.scss',
})
export class FollowSentence {
  readonly weave = model.required<FollowWeave>();
  protected readonly atLeastOne = atLeastOne;

  protected change(part: Partial<FollowWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
