import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { atLeastOne } from './numbers';
import type { Direction, GroupWeave, Weave } from '@pebble/contract';

/** A weave whose ties can be thinned when they are counted. */
type Thinned = Exclude<Weave, GroupWeave>;
const LEVEL = 0.05;

/** What is done when the ties are counted: directions, backbone, largest component. */
@Component({
  selector: 'pt-after-fields',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    <details>
      <summary>When the ties are counted: directions, backbone, well-tied nodes, largest component</summary>
      @if (w.what === 'accounts' || w.what === 'follows') {
        <div>
          Directions
          <mat-form-field><select matNativeControl
            aria-label="Directions"
            [ngModel]="w.direction"
            (ngModelChange)="changed.emit({ direction: $event })"
          >
            @for (one of directions; track one[0]) {
              <option [value]="one[0]">{{ one[1] }}</option>
            }
          </select></mat-form-field>
        </div>
      }
      <div class="with-number">
        <mat-checkbox
          [ngModel]="w.backbone !== null"
          (ngModelChange)="changed.emit({ backbone: $event ? level : null })">Only ties that stand out for one of their ends (disparity filter, Serrano et al. 2009){{ w.backbone === null ? '.' : '' }}</mat-checkbox>
        @if (w.backbone !== null) {
          , at the level
          <mat-form-field class="count"><input matInput
            type="number"
            min="0.0001"
            max="1"
            step="0.01"
            aria-label="Level of the backbone"
            [ngModel]="w.backbone"
            (ngModelChange)="changed.emit({ backbone: within($event) })" /></mat-form-field>.
        }
      </div>
      <div class="with-number">
        <mat-checkbox
          [ngModel]="w.neighboursAtLeast !== null"
          (ngModelChange)="changed.emit({ neighboursAtLeast: $event ? 2 : null })">Only nodes tied to enough others{{ w.neighboursAtLeast === null ? '.' : '' }}</mat-checkbox>
        @if (w.neighboursAtLeast !== null) {
          : at least
          <mat-form-field class="count"><input matInput
            type="number"
            min="1"
            aria-label="Others that a node is tied to at least"
            [ngModel]="w.neighboursAtLeast"
            (ngModelChange)="changed.emit({ neighboursAtLeast: atLeastOne($event) })" /></mat-form-field>, counted once.
        }
      </div>
      <mat-checkbox
          [ngModel]="w.largestOnly"
          (ngModelChange)="changed.emit({ largestOnly: $event })">Only the largest component.</mat-checkbox>
    </details>
  `,
  styleUrl: './sentence.scss',
})
export class AfterFields {
  readonly weave = input.required<Thinned>();
  readonly changed = output<{
    direction?: Direction;
    backbone?: number | null;
    neighboursAtLeast?: number | null;
    largestOnly?: boolean;
  }>();
  protected readonly atLeastOne = atLeastOne;
  protected readonly level = LEVEL;
  protected readonly directions: readonly (readonly [Direction, string])[] = [
    ['kept', 'are kept'],
    ['sum', 'are dropped: both ways added up'],
    ['greatest', 'are dropped: the stronger way counts'],
    ['least', 'are dropped: the weaker way counts'],
    ['mutual', 'are dropped: only where both ways are'],
  ];

  protected within(typed: number | null): number {
    return Math.min(1, Math.max(0.0001, typed ?? LEVEL));
  }
}
