import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { Growth } from '@pebble/contract';
import { formatValue } from '@pebble/core';
import { injectMapEditor } from '../session/inject-map-editor';

/** What the size of a node says, and how it grows. */
@Component({
  selector: 'pt-size-settings',
  imports: [MatButtonToggleGroup, MatButtonToggle, MatTooltip, MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let size = map.description().size;
    <h4>Size of the nodes</h4>
    <label
      >by
      <mat-form-field><select matNativeControl [ngModel]="size.column" (ngModelChange)="map.set('size', { column: $event })">
        @for (c of map.numberColumns(); track c.name) {
          <option [value]="c.name">{{ c.title }}</option>
        }
      </select></mat-form-field></label
    >
    <p class="how">{{ map.how(size.column) }} Here {{ range() }}.</p>
    <mat-button-toggle-group hideSingleSelectionIndicator aria-label="Growth">
      @for (g of growths; track g) {
        <mat-button-toggle
          [checked]="size.growth === g"
          (change)="map.set('size', { growth: g })"
        >
          {{ g }}
        </mat-button-toggle>
      }
    </mat-button-toggle-group>
    <label
      >smallest
      <mat-form-field><input matInput
        type="number"
        min="0.5"
        max="60"
        step="0.5"
        [ngModel]="size.smallest"
        (change)="setRadius('smallest', +$any($event.target).value)" /></mat-form-field>
      px</label
    >
    <label
      >largest
      <mat-form-field><input matInput
        type="number"
        min="1"
        max="60"
        step="0.5"
        [ngModel]="size.largest"
        (change)="setRadius('largest', +$any($event.target).value)" /></mat-form-field>
      px</label
    >
    <label matTooltip="Where one or two nodes are far above the rest, all others would be small"
      >the highest
      <mat-form-field><select matNativeControl aria-label="Cut" [ngModel]="size.cut" (ngModelChange)="map.set('size', { cut: +$event })">
        @for (cut of cuts; track cut) {
          <option [ngValue]="cut">{{ cut === 0 ? 'value alone is largest' : 100 * cut + ' % are all largest' }}</option>
        }
      </select></mat-form-field></label
    >
    <p class="how">Radius at scale 1. The smallest is never 0, so nobody vanishes.</p>
  `,
})
export class SizeSettings {
  protected readonly map = injectMapEditor();
  protected readonly growths = Growth.options;
  protected readonly cuts = [0, 0.01, 0.05, 0.1];
  protected readonly range = computed(() =>
    (this.map.session.prepared()?.sizeRange ?? [0, 0]).map(formatValue).join(' … '),
  );

  protected setRadius(which: 'smallest' | 'largest', value: number): void {
    if (!(value >= 0.5 && value <= 60)) return;
    const { smallest, largest } = this.map.description().size;
    this.map.set(
      'size',
      which === 'smallest'
        ? { smallest: Math.min(value, largest) }
        : { largest: Math.max(value, smallest, 1) },
    );
  }
}
