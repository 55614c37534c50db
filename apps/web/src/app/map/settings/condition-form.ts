import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { Condition } from '@pebble/contract';
import { nodeLabels } from '@pebble/core';
import { groupName } from '../session/grouping';
import { injectMapEditor } from '../session/inject-map-editor';

/** So many nodes are named. */
const NAMED = 12;
/** So many values of a category can be ticked. */
const MOST = 40;

/** The fields of one condition. */
@Component({
  selector: 'pt-condition-form',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './colour-settings.scss'],
  template: `
    @let c = condition();
    @switch (c.what) {
      @case ('range') {
        <label
          ><mat-form-field><select matNativeControl aria-label="Number" [ngModel]="c.column" (ngModelChange)="change({ column: $event })">
            @for (one of map.numberColumns(); track one.name) {
              <option [value]="one.name">{{ one.title }}</option>
            }
          </select></mat-form-field></label
        >
        <label
          >from
          <mat-form-field><input matInput
            type="number"
            aria-label="At least"
            [ngModel]="c.from"
            (change)="change({ from: bound($any($event.target).value) })" /></mat-form-field>
          to
          <mat-form-field><input matInput
            type="number"
            aria-label="At most"
            [ngModel]="c.until"
            (change)="change({ until: bound($any($event.target).value) })" /></mat-form-field></label>
      }
      @case ('values') {
        <label
          ><mat-form-field><select matNativeControl
            aria-label="Category"
            [ngModel]="c.column"
            (ngModelChange)="change({ column: $event, values: [] })"
          >
            @for (one of map.groupColumns(); track one.name) {
              <option [value]="one.name">{{ one.title }}</option>
            }
          </select></mat-form-field></label
        >
        <div class="groups">
          @for (one of values(); track one.value) {
            <mat-checkbox
                [ngModel]="c.values.includes(one.value)"
                (ngModelChange)="toggle(one.value, $event)"><span>{{ title(one.value) }}</span> <i>{{ one.nodes }}</i></mat-checkbox>
          }
        </div>
      }
      @case ('named') {
        <label
          ><mat-form-field class="wide"><input matInput
            aria-label="Text in the name"
            placeholder="shop | cafe"
            maxlength="500"
            [ngModel]="c.text"
            (ngModelChange)="change({ text: $event })" /></mat-form-field></label>
      }
      @case ('core') {
        <label
          >core of at least
          <mat-form-field><input matInput
            type="number"
            min="1"
            aria-label="Core number"
            [ngModel]="c.atLeast"
            (change)="count('atLeast', +$any($event.target).value)" /></mat-form-field></label>
      }
      @case ('components') {
        <label
          >the
          <mat-form-field><input matInput
            type="number"
            min="1"
            aria-label="Components"
            [ngModel]="c.largest"
            (change)="count('largest', +$any($event.target).value)" /></mat-form-field>
          largest</label
        >
      }
      @case ('near') {
        <label
          >up to
          <mat-form-field><select matNativeControl aria-label="Steps" [ngModel]="c.steps" (ngModelChange)="change({ steps: +$event })">
            @for (steps of [1, 2, 3]; track steps) {
              <option [ngValue]="steps">{{ steps }} {{ steps === 1 ? 'step' : 'steps' }}</option>
            }
          </select></mat-form-field>
          <mat-form-field><select matNativeControl aria-label="Way" [ngModel]="c.way" (ngModelChange)="change({ way: $event })">
            <option value="either">either way</option>
            <option value="out">along ties</option>
            <option value="in">against ties</option>
          </select></mat-form-field></label
        >
        <p class="how">round {{ chosen() }}</p>
      }
      @case ('chosen') {
        <p class="how">{{ chosen() }}</p>
      }
    }
  `,
})
export class ConditionForm {
  readonly condition = input.required<Condition>();
  readonly changed = output<Condition>();
  protected readonly map = injectMapEditor();
  protected title(value: string): string {
    const condition = this.condition();
    const column = condition.what === 'values' ? condition.column : '';
    return groupName(value, this.map.session.titles()[column]);
  }
  protected readonly values = computed(() => {
    const condition = this.condition();
    const nodes = this.map.session.data()?.nodes ?? {};
    if (condition.what !== 'values' || !(condition.column in nodes)) return [];
    const count = new Map<string, number>();
    for (const value of Array.from(nodes[condition.column] as ArrayLike<string | number>, String))
      count.set(value, (count.get(value) ?? 0) + 1);
    return [...count]
      .map(([value, all]) => ({ value, nodes: all }))
      .sort((a, b) => b.nodes - a.nodes)
      .slice(0, MOST);
  });
  protected readonly chosen = computed(() => {
    const condition = this.condition();
    const data = this.map.session.data();
    if ((condition.what !== 'near' && condition.what !== 'chosen') || !data) return '';
    const labels = nodeLabels(data.nodes);
    const { nodes } = condition;
    const named = nodes.slice(0, NAMED).map((v) => labels[v]);
    return `${named.join(', ')}${nodes.length > NAMED ? ` and ${nodes.length - NAMED} more` : ''}`;
  });

  protected bound(value: string): number | null {
    return value.trim() === '' || Number.isNaN(Number(value)) ? null : Number(value);
  }

  protected change(part: object): void {
    this.changed.emit({ ...this.condition(), ...part });
  }

  protected count(field: 'atLeast' | 'largest', value: number): void {
    if (value >= 1) this.change({ [field]: Math.round(value) });
  }

  protected toggle(value: string, on: boolean): void {
    const condition = this.condition();
    if (condition.what !== 'values') return;
    const others = condition.values.filter((one) => one !== value);
    this.change({ values: on ? [...others, value] : others });
  }
}
