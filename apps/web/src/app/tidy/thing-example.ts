import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FoundThing } from '@pebble/contract';
import { of } from 'rxjs';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { MessageText } from '../shared/message-text';
import { moment } from '../shared/words';

/** A message in which a thing stands, with the thing marked. */
@Component({
  selector: 'pt-thing-example',
  imports: [MessageText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (message(); as m) {
      <blockquote>
        <p class="soft">{{ m.author.handle }}, {{ m.time === null ? 'undated' : moment(m.time) }}</p>
        <pt-message-text [message]="m" [found]="thing().label" />
      </blockquote>
    }
  `,
  styles: `
    blockquote {
      margin: 3px 0 5px;
      padding: 3px 10px;
      border-left: 3px solid var(--line);
      max-height: 190px;
      overflow: auto;
    }
    p {
      margin: 0;
      font-size: 13px;
    }
  `,
})
export class ThingExample {
  private readonly api = inject(Api);
  readonly study = input.required<string>();
  readonly thing = input.required<FoundThing>();
  protected readonly moment = moment;
  private readonly asked = computed(() => ({ study: this.study(), example: this.thing().example }), {
    equal: (a, b) => a.study === b.study && a.example === b.example,
  });
  private readonly thread = latest(this.asked, ({ study, example }) =>
    example === null ? of(null) : this.api.thread({ study, message: example }),
  );
  protected readonly message = computed(
    () => this.thread()?.messages.find(({ message }) => message.id === this.thing().example)?.message ?? null,
  );
}
