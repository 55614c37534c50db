import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { codesOf, groupName } from '../session/grouping';
import { injectMapEditor } from '../session/inject-map-editor';

/** Values of a category that can be chosen at most: the largest. */
const LISTED = 100;

/** Round which nodes there is a dark rim. */
@Component({
  selector: 'pt-rim-settings',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let rim = map.description().shape.rim;
    <label
      >rim by
      <mat-form-field><select matNativeControl aria-label="Rim by" [ngModel]="rim?.column ?? ''" (ngModelChange)="choose($event)">
        <option value="">nothing</option>
        <optgroup label="thicker the higher">
          @for (c of map.numberColumns(); track c.name) {
            <option [value]="c.name">{{ c.title }}</option>
          }
        </optgroup>
        @if (map.groupColumns().length > 0) {
          <optgroup label="round those of one value">
            @for (c of map.groupColumns(); track c.name) {
              <option [value]="c.name">{{ c.title }}</option>
            }
          </optgroup>
        }
      </select></mat-form-field></label
    >
    @if (rim && rim.value !== null) {
      <label
        >round those with
        <mat-form-field><select matNativeControl
          aria-label="Value with a rim"
          [ngModel]="rim.value"
          (ngModelChange)="map.set('shape', { rim: { column: rim.column, value: $event } })"
        >
          @for (one of values(); track one) {
            <option [value]="one">{{ nameOf(one) }}</option>
          }
        </select></mat-form-field></label
      >
    }
    @if (rim && isEven()) {
      <p class="how" role="status">No node stands out: all have the same value, or none.</p>
    }
  `,
})
export class RimSettings {
  protected readonly map = injectMapEditor();
  protected nameOf(value: string): string {
    const { rim } = this.map.description().shape;
    return groupName(value, rim ? this.map.session.titles()[rim.column] : undefined);
  }
  protected readonly values = computed(() => {
    const column = this.map.description().shape.rim?.column;
    return column === undefined ? [] : this.valuesOf(column);
  });
  protected readonly isEven = computed(() => this.map.session.prepared()?.rimGroups.length === 0);

  protected choose(column: string): void {
    const isCategory = this.map.groupColumns().some(({ name }) => name === column);
    const value = isCategory ? (this.valuesOf(column)[0] ?? '') : null;
    this.map.set('shape', { rim: column === '' ? null : { column, value } });
  }

  /** The largest groups first. */
  private valuesOf(column: string): readonly string[] {
    const data = this.map.session.data();
    return data && column in data.nodes ? codesOf(data, column).names.slice(0, LISTED) : [];
  }
}
