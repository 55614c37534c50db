import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatTooltip } from '@angular/material/tooltip';
import type { FoundThing } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { day } from '../shared/words';

/** What was found of a sort, the most used first; one row is looked at. */
@Component({
  selector: 'pt-thing-table',
  imports: [MatTooltip, MatCheckbox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <thead>
        <tr>
          <th><span class="visually-hidden">Marked</span></th>
          <th>{{ title() }}</th>
          <th class="num" matTooltip="Messages in which it stands; of an account, those that it wrote or that address it">
            messages
          </th>
          <th class="num" matTooltip="Different accounts that wrote these messages">authors</th>
          <th>dates</th>
          <th>kind</th>
          <th matTooltip="What was decided of it">review</th>
        </tr>
      </thead>
      <tbody>
        @for (thing of things(); track thing.key; let i = $index) {
          <tr
            [class.at]="i === at()"
            [class.dropped]="thing.state === 'dropped'"
            [class.merged]="thing.state === 'merged'"
            [attr.aria-selected]="i === at()"
            [id]="'thing-' + i"
            (click)="chosen.emit(i)"
          >
            <td class="mark">
              <mat-checkbox
                [tabIndex]="-1"
                [aria-label]="'Mark ' + thing.label"
                [checked]="marked().has(thing.key)"
                (click)="$event.stopPropagation()"
                (change)="marking.emit(i)" />
            </td>
            <td class="label">
              {{ thing.label }}
              @if (thing.merged.length) {
                <small>with {{ thing.merged.join(', ') }}</small>
              }
              @for (category of categories(thing); track category) {
                <small class="category">{{ category }}</small>
              }
            </td>
            <td class="num">{{ n(thing.messages) }}</td>
            <td class="num">{{ n(thing.authors) }}</td>
            <td class="soft">{{ dates(thing) }}</td>
            <td class="soft">{{ thing.kind ?? '' }}</td>
            <td class="state">{{ says(thing) }}</td>
          </tr>
        } @empty {
          <tr>
            <td colspan="7" class="soft">Nothing fits.</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    table {
      border-collapse: collapse;
      width: 100%;
      font-size: 14px;
    }
    thead {
      position: sticky;
      top: 0;
      background: var(--paper2);
    }
    th {
      text-align: left;
      font-weight: 500;
      padding: 5px 10px;
      white-space: nowrap;
    }
    td {
      padding: 4px 10px;
      border-top: 1px solid var(--line);
      white-space: nowrap;
    }
    .label {
      max-width: 320px;
      white-space: normal;
      overflow-wrap: anywhere;
      font-weight: 500;
    }
    small {
      color: var(--soft);
      font-weight: 400;
      margin-left: 6px;
    }
    .mark {
      width: 20px;
      padding-right: 0;
    }
    .category {
      border: 1px solid var(--line);
      border-radius: 9px;
      padding: 0 7px;
    }
    .num {
      text-align: right;
      font-variant-numeric: tabular-nums;
    }
    tbody tr {
      cursor: pointer;
    }
    .at {
      background: var(--thread-wash);
      box-shadow: inset 3px 0 var(--thread);
    }
    .dropped .label {
      text-decoration: line-through;
      color: var(--soft);
    }
    .merged .label {
      color: var(--soft);
    }
    .state {
      color: var(--soft);
    }
  `,
})
export class ThingTable {
  readonly things = input.required<readonly FoundThing[]>();
  readonly title = input.required<string>();
  /** The row that is looked at. */
  readonly at = input.required<number>();
  /** Keys of the things that are marked. */
  readonly marked = input<ReadonlySet<string>>(new Set());
  readonly chosen = output<number>();
  /** A row is to be marked, or no longer. */
  readonly marking = output<number>();
  protected readonly n = formatCount;

  protected categories({ categories }: FoundThing): string[] {
    return Object.entries(categories).map(([name, value]) => `${name}: ${value}`);
  }

  protected dates({ first, last }: FoundThing): string {
    if (first === null || last === null) return '';
    return day(first) === day(last) ? day(first) : `${day(first)} – ${day(last)}`;
  }

  protected says({ state, into }: FoundThing): string {
    switch (state) {
      case 'open':
        return '';
      case 'kept':
        return '✓ kept';
      case 'dropped':
        return '✕ left out';
      case 'merged':
        return `→ ${into?.label ?? ''}`;
    }
  }
}
