import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NothingHere } from './nothing-here';

/** What an address outside of all screens leads to. */
@Component({
  selector: 'pt-unknown-page',
  imports: [NothingHere, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <pt-nothing-here title="There is no such page" [why]="why">
        <a routerLink="/">All studies</a>
      </pt-nothing-here>
    </main>
  `,
})
export class UnknownPage {
  protected readonly why = `Nothing stands at the address ${inject(Router).url}. It may be cut off, or typed wrong.`;
}
