import { ChangeDetectionStrategy, Component, effect, input, output, signal, untracked } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { Message, MessagePage } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import type { Observable } from 'rxjs';
import { MessageText } from '../../shared/message-text';
import { OneStop } from '../../shared/one-stop';
import { moment } from '../../shared/words';

/** Messages that a number counts. */
export interface Behind {
  readonly words: string;
  /** Of what they are: "in #moths". */
  readonly where: string;
  /** What is marked in their texts. */
  readonly found?: string;
  readonly page: (offset: number, limit: number) => Observable<MessagePage>;
}

const PAGE = 30;

/** The messages behind a number, page by page. */
@Component({
  selector: 'pt-messages-behind',
  imports: [MatButton, MessageText, OneStop, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './cells.scss',
  template: `
    <button matButton class="close" (click)="closed.emit()">Close</button>
    <h2 dir="auto">{{ behind().words }}</h2>
    <p class="soft">
      {{ behind().where }}{{ total() === null ? ' …' : ': ' + counted(total()!, 'message') }}
    </p>
    @if (error(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    <div #stop="ptOneStop" [ptOneStop]="messages().length" role="group" aria-label="Messages">
      @for (message of messages(); track message.id; let i = $index) {
        <article [attr.data-row]="i" [tabindex]="stop.reaches(i) ? 0 : -1">
          <small>{{ message.author.handle }} · {{ moment(message.time) }} · {{ message.kind }}</small>
          <pt-message-text [message]="message" [found]="behind().found ?? ''" [reached]="false" />
          <a
            class="small"
            [tabindex]="stop.reaches(i) ? 0 : -1"
            [routerLink]="[]"
            [queryParams]="{ view: 'spread', spread: textOf(message) }"
            queryParamsHandling="merge"
            >how its text spread</a
          >
          @if (quotations(); as quoted) {
            <button
              matButton
              class="small"
              [tabindex]="stop.reaches(i) ? 0 : -1"
              (click)="kept.emit(message.id)"
            >
              {{ quoted.includes(message.id) ? 'Quoted: take it away' : 'Keep as quotation' }}
            </button>
            <button
              matButton
              class="small"
              [tabindex]="stop.reaches(i) ? 0 : -1"
              (click)="cited.emit(message.id)"
            >
              Cite in the memo
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
export class MessagesBehind {
  readonly behind = input.required<Behind>();
  /** Those that are kept as quotations; null where none can be kept. */
  readonly quotations = input<readonly number[] | null>(null);
  readonly closed = output();
  readonly kept = output<number>();
  /** A message that the memo of the group shall point at. */
  readonly cited = output<number>();
  protected readonly messages = signal<readonly Message[]>([]);
  protected readonly total = signal<number | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly moment = moment;
  /** Asks how the text of a message spread, for the address. */
  protected readonly textOf = ({ id }: Message): string => JSON.stringify({ what: 'text', message: id });

  constructor() {
    effect((onCleanup) => {
      this.behind();
      this.messages.set([]);
      this.total.set(null);
      this.error.set(null);
      const reading = untracked(() => this.read(0));
      onCleanup(() => reading.unsubscribe());
    });
  }

  protected read(offset: number) {
    return this.behind()
      .page(offset, PAGE)
      .subscribe({
        next: ({ total, messages }) => {
          this.total.set(total);
          this.messages.update((before) => (offset === 0 ? messages : [...before, ...messages]));
        },
        error: (error: Error) => this.error.set(error.message),
      });
  }
}
