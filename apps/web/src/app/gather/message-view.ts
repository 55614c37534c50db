import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Message, TextSpan } from '@pebble/contract';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { MessageText } from '../shared/message-text';
import { NameMaker } from '../shared/name-maker';
import { Notices } from '../store/notices';
import { counted, moment } from '../shared/words';

/** One message whole: its people, its star and note, the thread it stands in, and what else is known of it. */
@Component({
  selector: 'pt-message-view',
  imports: [MatTooltip, MatInput, MatFormField, MatButton, FormsModule, MessageText, NameMaker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './message-view.html',
  styleUrl: './message-view.scss',
})
export class MessageView {
  readonly study = input.required<string>();
  readonly message = input.required<Message>();
  readonly closed = output<void>();
  readonly spanClicked = output<TextSpan>();
  /** Another message of the thread. */
  readonly messageChosen = output<Message>();
  /** Key of the item under which it stands. */
  readonly itemChosen = output<string>();
  /** The message as it is after a change. */
  readonly changed = output<Message>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  /** Which note is kept of which message: what is being typed stays while these are the same. */
  private readonly kept = computed(() => [this.message().id, this.message().note ?? ''] as const, {
    equal: ([id, note], [other, same]) => id === other && note === same,
  });
  protected readonly note = linkedSignal(() => this.kept()[1]);
  protected readonly moment = moment;
  protected readonly counted = counted;
  protected readonly ways = ['to', 'cc', 'bcc'] as const;

  private readonly asked = computed(() => ({ study: this.study(), id: this.message().id }), {
    equal: (a, b) => a.study === b.study && a.id === b.id,
  });
  protected readonly thread = latest(this.asked, ({ study, id }) => this.api.thread({ study, message: id }));

  protected mark(part: { starred?: boolean; note?: string }): void {
    const message = this.message();
    const starred = part.starred ?? message.starred;
    const note = (part.note ?? message.note ?? '').trim();
    this.api.step(this.study(), 'mark-message', { message: message.id, starred, note }).subscribe({
      next: () => this.changed.emit({ ...message, starred, note: note || null }),
      error: (error: Error) => this.notices.say(error.message),
    });
  }

  protected setLanguage(code: string): void {
    const message = this.message();
    if (code.trim() === '' || code === message.language?.code) return;
    this.api.step(this.study(), 'set-language', { message: message.id, language: code.trim() }).subscribe({
      next: () => this.changed.emit({ ...message, language: { code: code.trim(), how: 'by hand' } }),
      error: (error: Error) => this.notices.say(error.message),
    });
  }

  /** "Ann, ben@quay.example", those whom an email is sent to in one of the ways. */
  protected receivers({ addressed }: Message, way: 'to' | 'cc' | 'bcc'): string {
    return addressed
      .filter(({ how }) => how === way)
      .map(({ handle, name }) => (name ? `${name} (${handle})` : handle))
      .join(', ');
  }

  protected entries(record: Record<string, string | number>): [string, string | number][] {
    return Object.entries(record);
  }
}
