import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { Condition, type NodeFilter } from '@pebble/contract';
import { conditionPhrase } from '@pebble/core';
import { ConditionForm } from './condition-form';
import { injectMapEditor } from '../session/inject-map-editor';

/** Conditions for nodes, that read as phrases and can be joined, turned round, changed and taken away. */
@Component({
  selector: 'pt-condition-list',
  imports: [MatButtonToggleGroup, MatButtonToggle, MatInput, MatFormField, MatButton, ConditionForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './shown-settings.scss'],
  template: `
    <h4>
      {{ heading() }}
      @if (filter().conditions.length > 1) {
        <mat-button-toggle-group hideSingleSelectionIndicator aria-label="Joined by">
          @for (one of joins; track one[0]) {
            <mat-button-toggle
              [checked]="filter().joined === one[0]"
              (change)="set({ joined: one[0] })"
            >
              {{ one[1] }}
            </mat-button-toggle>
          }
        </mat-button-toggle-group>
      }
    </h4>
    @for (one of filter().conditions; track $index) {
      <div class="condition">
        <p>
          {{ phrase(one) }}
          <button matButton (click)="turn($index)">{{ one.not ? 'without “not”' : 'not' }}</button>
          <button matButton [attr.aria-label]="'Take away: ' + phrase(one)" (click)="remove($index)">
            take away
          </button>
        </p>
        <pt-condition-form [condition]="one" (changed)="replace($index, $event)" />
      </div>
    }
    <label
      >and only
      <mat-form-field><select matNativeControl #kind aria-label="New condition" (change)="add($any(kind.value)); kind.value = ''">
        <option value="">add a condition …</option>
        @for (one of kinds(); track one[0]) {
          <option [value]="one[0]">{{ one[1] }}</option>
        }
      </select></mat-form-field></label
    >
  `,
})
export class ConditionList {
  readonly heading = input.required<string>();
  readonly filter = input.required<NodeFilter>();
  readonly changed = output<NodeFilter>();
  protected readonly map = injectMapEditor();
  protected readonly phrase = conditionPhrase;
  protected readonly joins = [
    ['and', 'all of these'],
    ['or', 'one of these'],
  ] as const;
  protected readonly kinds = computed(() => {
    const chosen = this.map.session.chosen().length;
    return [
      ['range', 'a number in a range'],
      ...(this.map.groupColumns().length > 0 ? [['values', 'a category']] : []),
      ['named', 'the name contains'],
      ['core', 'in the core'],
      ['components', 'in the largest components'],
      ...(chosen > 0 ? [['near', chosen === 1 ? 'near the selected node' : 'near the chosen nodes']] : []),
      ...(chosen > 0 ? [['chosen', chosen === 1 ? 'the selected node' : 'the chosen nodes']] : []),
    ] as const;
  });

  protected add(what: Condition['what'] | ''): void {
    const first = this.map.numberColumns().at(0)?.name ?? '';
    const group = this.map.groupColumns().at(0)?.name ?? '';
    const nodes = this.map.session.chosen();
    const begun = {
      range: {
        what,
        column: this.map.numberColumns().some(({ name }) => name === 'degree') ? 'degree' : first,
        from: 2,
      },
      values: { what, column: group, values: [] },
      named: { what, text: '' },
      core: { what, atLeast: 2 },
      components: { what, largest: 1 },
      near: { what, nodes, steps: 1 },
      chosen: { what, nodes },
    };
    if (what === '') return;
    this.set({ conditions: [...this.filter().conditions, Condition.parse(begun[what])] });
  }

  protected replace(at: number, condition: Condition): void {
    this.set({ conditions: this.filter().conditions.map((one, i) => (i === at ? condition : one)) });
  }

  protected turn(at: number): void {
    const one = this.filter().conditions[at];
    this.replace(at, { ...one, not: !one.not });
  }

  protected remove(at: number): void {
    this.set({ conditions: this.filter().conditions.filter((_, i) => i !== at) });
  }

  protected set(change: Partial<NodeFilter>): void {
    this.changed.emit({ ...this.filter(), ...change });
  }
}
