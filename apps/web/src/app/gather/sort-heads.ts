import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';

/** A column by which a table can be ordered. */
export interface SortHead<O extends string> {
  readonly by: O;
  readonly title: string;
  /** What it counts, or how it orders. */
  readonly how: string;
  /** Texts go up; numbers and dates fall. */
  readonly rises?: boolean;
}

/** The heads of a table's columns, each a button that orders the table by it; further heads are put inside. */
@Component({
  // An element between the table and its heads would break the table.
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'tr[ptSortHeads]',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (head of heads(); track head.by) {
      <th [attr.aria-sort]="by() === head.by ? (head.rises ? 'ascending' : 'descending') : null">
        <button [matTooltip]="head.how" (click)="chosen.emit(head.by)">{{ head.title }}</button>
      </th>
    }
    <ng-content />
  `,
  styles: `
    button {
      border: 0;
      background: none;
      padding: 2px 0;
      cursor: pointer;
      font-weight: 500;
    }
    [aria-sort] button {
      color: var(--thread);
    }
    [aria-sort] button::after {
      content: ' ↓';
    }
    [aria-sort='ascending'] button::after {
      content: ' ↑';
    }
    th {
      text-align: left;
      padding: 4px 10px;
    }
  `,
})
export class SortHeads<O extends string> {
  readonly heads = input.required<readonly SortHead<O>[]>({ alias: 'ptSortHeads' });
  readonly by = input.required<O>();
  readonly chosen = output<O>();
}
