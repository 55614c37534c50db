import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FoundThing } from '@pebble/contract';
import { of } from 'rxjs';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { MessageText } from '../shared/message-text';

/** A message in which a thing stands, with the thing marked. */
@Component({
  selector: 'pt-thing-example',
  imports: [MessageText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (message(); as m) {
      <blockquote><pt-message-text [message]="m" [found]="thing().label" /></blockquote>
    }
  `,
  styles: `
    blockquote {
      margin: 3px 0 5px;
      padding: 1px 10px;
      border-left: 3px solid var(--line);
      font-size: 13px;
    }
  `,
})
export class ThingExample {
  private readonly api = inject(Api);
  readonly study = input.required<string>();
  readonly thing = input.required<FoundThing>();
  private readonly asked = computed(() => ({ study: this.study(), example: this.thing().example }), {
    equal: (a, b) => a.study === b.study && a.example === b.example,
  });
  private readonly thread = latest(this.asked, ({ study, example }) =>
    example === null ? of(null) : this.api.thread(study, example),
  );
  protected readonly message = computed(
    () => this.thread()?.messages.find(({ message }) => message.id === this.thing().example)?.message ?? null,
  );
}
