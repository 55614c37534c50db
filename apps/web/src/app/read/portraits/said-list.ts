import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { FullPortrait, Message } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { MessageText } from '../../shared/message-text';
import { moment } from '../../shared/words';

/** Which messages are shown for a group. */
export type SaidView = 'reposted' | 'answered' | 'nearest' | 'sample' | 'quotations';

interface Said {
  readonly message: Message;
  readonly why: string;
}

/** Messages that stand for a group; those that are kept as quotations stay with the portrait. */
@Component({
  selector: 'pt-said-list',
  imports: [MatButton, MessageText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    @for (one of said(); track one.message.id) {
      <blockquote>
        <small>{{ one.message.author.handle }} · {{ moment(one.message.time) }}{{ one.why }}</small>
        <pt-message-text [message]="one.message" [reached]="false" />
        <button matButton class="small" (click)="kept.emit(one.message.id)">
          {{ isQuoted(one.message.id) ? 'Quoted: take it away' : 'Keep as quotation' }}
        </button>
      </blockquote>
    } @empty {
      <p class="faint">{{ view() === 'quotations' ? 'none kept yet' : 'none' }}</p>
    }
  `,
})
export class SaidList {
  readonly portrait = input.required<FullPortrait>();
  readonly view = input.required<SaidView>();
  readonly isWide = input(false);
  /** A message that is to be kept as a quotation, or not any more. */
  readonly kept = output<number>();
  protected readonly moment = moment;
  protected readonly said = computed<Said[]>(() => {
    const portrait = this.portrait();
    const byId = new Map(portrait.quoted.map((message) => [message.id, message]));
    return chosen(portrait, this.view())
      .flatMap(({ id, why }) => {
        const message = byId.get(id);
        return message ? [{ message, why }] : [];
      })
      .slice(0, this.isWide() ? 5 : 2);
  });

  protected isQuoted(id: number): boolean {
    return this.portrait().notes.quotations.includes(id);
  }
}

function chosen(portrait: FullPortrait, view: SaidView): { readonly id: number; readonly why: string }[] {
  switch (view) {
    case 'reposted':
    case 'answered': {
      const done = view === 'reposted' ? 'passed on' : 'answered';
      return portrait[view].map(({ message, times }) => ({
        id: message,
        why: ` · ${done} ${formatCount(times)}×`,
      }));
    }
    case 'nearest':
      return portrait.nearest.map(({ message, terms }) => ({
        id: message,
        why: ` · ${terms} typical words`,
      }));
    case 'sample':
      return portrait.sample.map((id) => ({ id, why: '' }));
    case 'quotations':
      return portrait.notes.quotations.map((id) => ({ id, why: '' }));
  }
}
