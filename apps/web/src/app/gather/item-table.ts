import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import type { ItemQuery, ItemRow, MessageOverview } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { counted, day } from '../shared/words';
import { SaveData } from '../shared/save-data';
import { SortHeads, type SortHead } from './sort-heads';
import { WordField } from '../shared/word-field';

type Order = ItemQuery['by'];

/** The videos, pages and other items of a study, with the comments under them. */
@Component({
  selector: 'pt-item-table',
  imports: [WordField, MatTooltip, MatButton, SaveData, SortHeads],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="tools">
      <pt-word-field label="Find an item or channel" [(words)]="search" />
      @if (page(); as p) {
        <b>{{ counted(p.total, 'item') }}</b>
        @if (p.items.length < p.total) {
          <span class="soft">the first {{ p.items.length }} are shown</span>
        }
      }
      <pt-save-data [study]="study()" what="items" [filter]="{ search: search(), by: by() }" />
    </div>
    <div class="scroll" tabindex="0" aria-label="Items">
      <table>
        <thead>
          <tr [ptSortHeads]="heads" [by]="by()" (chosen)="by.set($event)">
            <th>channel or page</th>
            <th>counts</th>
          </tr>
        </thead>
        <tbody>
          @for (row of page()?.items; track row.key) {
            <tr>
              <td class="title">
                <button matButton (click)="chosen.emit(row.key)" matTooltip="Read the comments under it">
                  {{ row.title }}
                </button>
              </td>
              <td class="num">{{ n(row.messages) }}</td>
              <td class="num">{{ n(row.authors) }}</td>
              <td class="soft">{{ row.time === null ? '' : day(row.time) }}</td>
              <td>{{ row.channel }}</td>
              <td class="told">{{ told(row) }}</td>
            </tr>
          } @empty {
            <tr>
              <td colspan="6" class="soft">{{ page() ? 'No item fits.' : '…' }}</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styleUrl: './table.scss',
})
export class ItemTable {
  readonly study = input.required<string>();
  readonly overview = input.required<MessageOverview>();
  /** Key of an item whose comments are to be read. */
  readonly chosen = output<string>();
  private readonly api = inject(Api);
  protected readonly search = signal('');
  protected readonly by = signal<Order>('messages');
  protected readonly counted = counted;
  protected readonly day = day;
  protected readonly n = formatCount;
  protected readonly heads: readonly SortHead<Order>[] = [
    { by: 'title', title: 'title', how: 'By title', rises: true },
    { by: 'messages', title: 'comments', how: 'Comments and answers under it that were collected' },
    { by: 'authors', title: 'authors', how: 'Accounts that commented on it' },
    { by: 'time', title: 'published', how: 'Newest first' },
  ];
  private readonly asked = computed(() => ({
    study: this.study(),
    items: this.overview().items,
    query: { search: this.search(), by: this.by(), limit: 500 },
  }));
  protected readonly page = latest(this.asked, ({ study, query }) => this.api.items({ study }, query));

  protected told({ numbers }: ItemRow): string {
    return Object.entries(numbers)
      .map(([name, value]) => `${typeof value === 'number' ? formatCount(value) : value} ${name}`)
      .join(' · ');
  }
}
