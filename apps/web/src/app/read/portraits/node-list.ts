import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatTooltip } from '@angular/material/tooltip';
import type { FullPortrait, Network, StandingNode, TieWay } from '@pebble/contract';
import { formatValue } from '@pebble/core';
import type { Evidence } from '../common/evidence';

/** A few nodes with a number each, and where they are on the map. */
@Component({
  selector: 'pt-node-list',
  imports: [MatTooltip, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    <h4 [matTooltip]="how()">{{ heading() }}</h4>
    <ul>
      @for (one of nodes(); track one.node) {
        <li>
          <a
            class="name"
            [routerLink]="['/studies', network().study, 'map', network().id]"
            [queryParams]="{ node: portrait().names[one.node] }"
            matTooltip="Show it on the map"
            >{{ portrait().names[one.node] }}</a
          >
          @if (hasMessages()) {
            <button
              class="evidence"
              [matTooltip]="how() + ': read the messages'"
              [attr.aria-label]="'Read what is counted of ' + portrait().names[one.node] + ', ' + heading()"
              (click)="open(one.node)"
            >
              {{ value(one.value) }}
            </button>
          } @else {
            <span class="number">{{ value(one.value) }}</span>
          }
        </li>
      } @empty {
        <li class="faint">nobody</li>
      }
    </ul>
  `,
})
export class NodeList {
  readonly heading = input.required<string>();
  /** What the number is. */
  readonly how = input.required<string>();
  readonly portrait = input.required<FullPortrait>();
  readonly network = input.required<Network>();
  readonly nodes = input.required<readonly StandingNode[]>();
  /** Which messages the number counts; those that the node wrote where it is left out. */
  readonly way = input<TieWay>();
  readonly hasMessages = input.required<boolean>();
  readonly opened = output<Evidence>();
  protected readonly value = formatValue;

  protected open(node: number): void {
    const { group, names } = this.portrait();
    const way = this.way();
    this.opened.emit({
      words: `${names[node]}: ${this.heading()}`,
      query: { group, node, ...(way ? { way } : {}) },
    });
  }
}
