import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Network } from '@pebble/contract';
import { wholesIn } from '../shared/slices';
import { NothingHere } from './nothing-here';

/** What the address of a network leads to that is not there: the study's other networks are offered. */
@Component({
  selector: 'pt-no-network',
  imports: [NothingHere, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <pt-nothing-here
      title="There is no network here"
      why="A link from elsewhere may lead to a network of another study. One that was deleted can be taken back for some days."
    >
      <a [routerLink]="['/studies', study(), 'weave']">Weave a network, or take one back</a>
      @for (network of others(); track network.id) {
        <a [routerLink]="['/studies', study(), stop(), network.id]">{{ network.name }}</a>
      }
    </pt-nothing-here>
  `,
  styles: `
    a {
      display: block;
      padding: 4px 0;
    }
  `,
})
export class NoNetwork {
  readonly study = input.required<string>();
  readonly networks = input.required<readonly Network[]>();
  /** To which stop the others are opened. */
  readonly stop = input.required<'map' | 'read' | 'publish'>();
  protected readonly others = computed(() => wholesIn(this.networks()));
}
