import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** A page for an address that leads to nothing: says so, why that may be, and where to go on. */
@Component({
  selector: 'pt-nothing-here',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>{{ title() }}</h1>
      <p class="empty" role="alert">{{ why() }}</p>
      <p><ng-content /></p>
    </div>
  `,
})
export class NothingHere {
  readonly title = input.required<string>();
  readonly why = input.required<string>();
}
