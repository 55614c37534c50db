import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import type { AccountQuery, AccountRow, MessageOverview } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { Api } from '../api/api';
import { Busy } from '../shared/busy';
import { latest } from '../shared/latest';
import { Notices } from '../store/notices';
import { counted, day } from '../shared/words';
import { SaveData } from '../shared/save-data';
import { SortHeads, type SortHead } from './sort-heads';
import { WordField } from '../shared/word-field';

const PAGE = 100;
type Order = AccountQuery['by'];

/** The accounts of a study: what they did, who follows them, what is told of them. */
@Component({
  selector: 'pt-account-table',
  imports: [WordField, MatTooltip, MatButton, Busy, SaveData, SortHeads],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="tools">
      <pt-word-field label="Find an account" [words]="search()" (wordsChange)="find($event)" />
      @if (page(); as p) {
        <b>{{ counted(p.total, 'account') }}</b>
      }
      <pt-save-data [study]="study()" what="accounts" [filter]="{ search: search(), by: by() }" />
    </div>
    @if (forgetting(); as row) {
      <section class="forget" role="alertdialog" aria-label="Forget a person">
        <h3>Forget {{ row.handle }}</h3>
        <p>
          Erased are {{ counted(row.messages, 'message') }} that it wrote, its profile and its ties of following. Its
          name is replaced by “forgotten” in what others wrote, in the logbook and in networks woven before, which are
          to be woven again. Files that wait to be taken in are removed. The logbook says that and how much, and not
          whom. It cannot be taken back.
        </p>
        <button matButton="outlined" (click)="forgetting.set(null)" [disabled]="busy()">Keep</button>
        <button matButton="outlined" class="danger" (click)="forget(row)" [ptBusy]="busy()">{{ busy() ? 'Erasing …' : 'Forget for good' }}</button>
      </section>
    }
    @if (problem(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    <div class="scroll" tabindex="0" aria-label="Accounts">
      <table>
        <thead>
          <tr [ptSortHeads]="heads" [by]="by()" (chosen)="sort($event)">
            <th>dates</th>
            <th matTooltip="As files and services tell it; of several the latest">what is told of it</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (row of page()?.accounts; track row.id) {
            <tr>
              <td>
                <button matButton (click)="chosen.emit(row.handle)" matTooltip="Read its messages">
                  {{ row.handle }}
                </button>
                @if (row.name) {
                  <span class="soft">{{ row.name }}</span>
                }
              </td>
              <td class="num">{{ n(row.messages) }}</td>
              <td class="num">{{ n(row.addressed) }}</td>
              <td class="num">{{ n(row.followersHere) }}</td>
              <td class="num">{{ n(row.followingHere) }}</td>
              <td class="soft">{{ dates(row) }}</td>
              <td class="told" [matTooltip]="told(row)">{{ told(row) }}</td>
              <td>
                <button matButton
                  class="forgets"
                  [attr.aria-label]="'Forget ' + row.handle"
                  matTooltip="Erase its messages and its name from this study"
                  (click)="forgetting.set(row)"
                >
                  Forget …
                </button>
              </td>
            </tr>
          } @empty {
            <tr>
              <td colspan="8" class="soft">{{ page() ? 'No account fits.' : '…' }}</td>
            </tr>
          }
        </tbody>
      </table>
      @if (rest() > 0) {
        <button matButton="outlined" (click)="more()">Show more ({{ n(rest()) }} left)</button>
      }
    </div>
  `,
  styleUrl: './table.scss',
})
export class AccountTable {
  readonly study = input.required<string>();
  readonly overview = input.required<MessageOverview>();
  /** Handle of an account whose messages are to be read. */
  readonly chosen = output<string>();
  private readonly api = inject(Api);
  protected readonly search = signal('');
  private readonly limit = signal(PAGE);
  protected readonly by = signal<Order>('messages');
  protected readonly counted = counted;
  protected readonly n = formatCount;
  protected readonly heads: readonly SortHead<Order>[] = [
    { by: 'handle', title: 'account', how: 'By name', rises: true },
    { by: 'messages', title: 'messages', how: 'Messages that it wrote' },
    {
      by: 'addressed',
      title: 'addressed',
      how: 'Messages of others that answer, mention, repost or are sent to it',
    },
    {
      by: 'followersHere',
      title: 'followers here',
      how: 'Accounts of this study that follow it, by follower lists',
    },
    { by: 'followingHere', title: 'follows here', how: 'Accounts of this study that it follows' },
  ];

  /** The account of which it is asked whether it is to be forgotten. */
  protected readonly forgetting = signal<AccountRow | null>(null);
  protected readonly busy = signal(false);
  protected readonly problem = signal<string | null>(null);
  private readonly forgotten = signal(0);
  private readonly notices = inject(Notices);

  private readonly asked = computed(() => ({
    study: this.study(),
    accounts: this.overview().accounts,
    forgotten: this.forgotten(),
    query: { search: this.search(), by: this.by(), limit: this.limit() },
  }));
  protected readonly page = latest(this.asked, ({ study, query }) => this.api.accounts({ study }, query));
  protected readonly rest = computed(() => {
    const page = this.page();
    return page && this.limit() < 500 ? page.total - page.accounts.length : 0;
  });

  protected forget({ id }: AccountRow): void {
    this.busy.set(true);
    this.problem.set(null);
    this.api.step(this.study(), 'forget-account', { account: id }).subscribe({
      next: ({ state, error, sentence }) => {
        if (state === 'done') this.notices.say(sentence);
        else this.problem.set(error);
        this.done();
      },
      error: (error: Error) => {
        this.problem.set(error.message);
        this.done();
      },
    });
  }

  private done(): void {
    this.busy.set(false);
    this.forgetting.set(null);
    this.forgotten.update((n) => n + 1);
  }

  protected find(typed: string): void {
    this.search.set(typed);
    this.limit.set(PAGE);
  }

  protected sort(by: Order): void {
    this.by.set(by);
    this.limit.set(PAGE);
  }

  protected more(): void {
    this.limit.update((limit) => Math.min(500, limit + PAGE));
  }

  protected dates({ first, last }: AccountRow): string {
    if (first === null || last === null) return '';
    return day(first) === day(last) ? day(first) : `${day(first)} to ${day(last)}`;
  }

  /** "412 followers · Sallowmere · joined 5 January 2020 · Counts moths" */
  protected told({ profile: { numbers, location, joined, description, attributes } }: AccountRow): string {
    return [
      ...Object.entries(numbers).map(
        ([name, value]) => `${typeof value === 'number' ? formatCount(value) : value} ${name}`,
      ),
      location,
      joined === null ? null : `joined ${day(joined)}`,
      description,
      ...Object.entries(attributes).map(([name, value]) => `${name}: ${value}`),
    ]
      .filter((part) => part)
      .join(' · ');
  }
}
