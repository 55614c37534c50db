import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { InStepWeave } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Accounts tied by posting the same at the same time. */
@Component({
  selector: 'pt-step-sentence',
  imports: [FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Accounts are tied when they post the same
    <select class="box" aria-label="The same" [ngModel]="w.same" (ngModelChange)="change({ same: $event })">
      <option value="text">text</option>
      <option value="link">link</option>
      <option value="hashtags">set of hashtags</option>
    </select>
    within
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Seconds"
      [ngModel]="w.seconds"
      (ngModelChange)="change({ seconds: atLeastOne($event) })"
    />
    {{ w.seconds === 1 ? 'second' : 'seconds' }}, with at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Different ones at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })"
    />
    different ones<pt-period-fields [period]="w" (changed)="change($event)" />
    <label
      ><input type="checkbox" [ngModel]="w.reposts" (ngModelChange)="change({ reposts: $event })" /> Reposts
      count too.</label
    >
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
