import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  inputBinding,
  model,
  twoWayBinding,
  untracked,
  viewChild,
  ViewContainerRef,
} from '@angular/core';
import type { Weave } from '@pebble/contract';
import { questionOf, type Held } from './questions';

/** The sentence of a weave, as its question has it. */
@Component({
  selector: 'pt-sentence',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<ng-container #place />',
})
export class Sentence {
  readonly weave = model.required<Weave>();
  readonly held = input.required<Held>();
  private readonly place = viewChild.required('place', { read: ViewContainerRef });
  private readonly what = computed(() => this.weave().what);

  constructor() {
    effect(() => {
      const { sentence, knows } = questionOf(this.what());
      const place = this.place();
      untracked(() => {
        place.clear();
        const inputs = Object.keys(knows?.(this.held()) ?? {});
        place.createComponent(sentence, {
          bindings: [
            twoWayBinding('weave', this.weave),
            ...inputs.map((name) => inputBinding(name, () => knows?.(this.held())[name])),
          ],
        });
      });
    });
  }
}
