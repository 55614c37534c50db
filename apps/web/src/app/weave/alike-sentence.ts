import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { AlikeWeave } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Messages or accounts tied by their words. */
@Component({
  selector: 'pt-alike-sentence',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    <mat-form-field><select matNativeControl aria-label="What is compared" [ngModel]="w.nodes" (ngModelChange)="setNodes($event)">
      <option value="message">Messages</option>
      <option value="account">Accounts</option>
    </select></mat-form-field>
    are tied when they share at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="0"
      max="100"
      aria-label="Per cent of the words of either at least"
      [ngModel]="percent()"
      (ngModelChange)="setPercent($event)" /></mat-form-field>
    % of the words of either, and at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Shared words at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })" /></mat-form-field>
    {{ w.atLeast === 1 ? 'word' : 'words' }}<pt-period-fields [period]="w" (changed)="change($event)" />
    <mat-checkbox [ngModel]="w.reposts" (ngModelChange)="change({ reposts: $event })">Reposts
      count too.</mat-checkbox>
  `,
  styleUrl: './sentence.scss',
})
export class AlikeSentence {
  readonly weave = model.required<AlikeWeave>();
  protected readonly atLeastOne = atLeastOne;

  protected percent(): number {
    return Math.round(this.weave().likeness * 100);
  }

  protected setPercent(typed: number | null): void {
    this.change({ likeness: Math.min(100, Math.max(0, typed ?? 0)) / 100 });
  }

  /** Whole accounts share fewer of their words than two messages do, and more in number. */
  protected setNodes(nodes: AlikeWeave['nodes']): void {
    this.change(
      nodes === 'message' ? { nodes, likeness: 0.6, atLeast: 4 } : { nodes, likeness: 0.2, atLeast: 10 },
    );
  }

  protected change(part: Partial<AlikeWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
