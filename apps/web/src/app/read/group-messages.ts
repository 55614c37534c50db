import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { Message, Network } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { Api, pathOf } from '../api/api';
import { MessageText } from '../shared/message-text';
import { OneStop } from '../shared/one-stop';
import { moment } from '../shared/words';
import type { Evidence } from './evidence';

const PAGE = 30;

/** The messages that a number of a portrait counts. */
@Component({
  selector: 'pt-group-messages',
  imports: [MatButton, MessageText, OneStop],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './cells.scss',
  template: `
    <button matButton class="close" (click)="closed.emit()">Close</button>
    <h2>{{ evidence().words }}</h2>
    <p class="soft">
      {{ evidence().query.elsewhere === 'true' ? 'Not in' : 'In' }} “{{ title() }}”{{
        total() === null ? ' …' : ': ' + count(total()!) + (total() === 1 ? ' message' : ' messages')
      }}
    </p>
    @if (error(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    <div #stop="ptOneStop" [ptOneStop]="messages().length" role="group" aria-label="Messages">
      @for (message of messages(); track message.id; let i = $index) {
        <article [attr.data-row]="i" [tabindex]="stop.reaches(i) ? 0 : -1">
          <small>{{ message.author.handle }} · {{ moment(message.time) }} · {{ message.kind }}</small>
          <pt-message-text [message]="message" [found]="evidence().query.label ?? ''" [reached]="false" />
          @if (evidence().query.elsewhere !== 'true') {
            <button matButton class="small" [tabindex]="stop.reaches(i) ? 0 : -1" (click)="kept.emit(message.id)">
              {{ quotations().includes(message.id) ? 'Quoted: take it away' : 'Keep as quotation' }}
            </button>
          }
        </article>
      }
    </div>
    @if (total() !== null && messages().length < total()!) {
      <button matButton="outlined" (click)="read(messages().length)">
        More messages ({{ count(total()! - messages().length) }})
      </button>
    }
  `,
})
export class GroupMessages {
  readonly network = input.required<Network>();
  readonly column = input.required<string>();
  readonly evidence = input.required<Evidence>();
  /** Of the group. */
  readonly title = input.required<string>();
  readonly quotations = input<readonly number[]>([]);
  readonly closed = output();
  readonly kept = output<number>();
  private readonly api = inject(Api);
  protected readonly messages = signal<readonly Message[]>([]);
  protected readonly total = signal<number | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly count = formatCount;
  protected readonly moment = moment;

  constructor() {
    effect((onCleanup) => {
      this.messages.set([]);
      this.total.set(null);
      this.error.set(null);
      const reading = this.asked(0);
      onCleanup(() => reading.unsubscribe());
    });
  }

  protected read(offset: number): void {
    this.asked(offset);
  }

  private asked(offset: number) {
    const query = { ...this.evidence().query, column: this.column(), offset, limit: PAGE };
    return this.api.groupMessages(pathOf(this.network()), query).subscribe({
      next: ({ total, messages }) => {
        this.total.set(total);
        this.messages.update((before) => (offset === 0 ? messages : [...before, ...messages]));
      },
      error: (error: Error) => this.error.set(error.message),
    });
  }
}
