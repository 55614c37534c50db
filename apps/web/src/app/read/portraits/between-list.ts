import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { FullPortrait, GroupTie, TieWay } from '@pebble/contract';
import { counted } from '@pebble/core/first';
import { formatValue } from '@pebble/core';
import type { Evidence } from '../common/evidence';

/** What ties a group to others: how much, in which direction, and by whom. */
@Component({
  selector: 'pt-between-list',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    <ul>
      @for (tie of ties(); track tie.group) {
        <li [matTooltip]="how(tie)">
          <span class="name">{{ tie.group === null ? 'all smaller groups' : titles()[tie.group] }}</span>
          @for (way of directed() ? ways : either; track way) {
            @if (tie.group === null || !hasMessages()) {
              <span class="number">{{ shown(tie, way) }}</span>
            } @else {
              <button
                class="evidence"
                [attr.aria-label]="'Read the messages ' + (way === 'in' ? 'from ' : 'to ') + titles()[tie.group]"
                (click)="open(tie.group, way)"
              >
                {{ shown(tie, way) }}
              </button>
            }
          }
        </li>
      } @empty {
        <li class="faint">no ties to others</li>
      }
    </ul>
  `,
})
export class BetweenList {
  readonly portrait = input.required<FullPortrait>();
  /** Of the groups, by their places. */
  readonly titles = input.required<readonly string[]>();
  readonly directed = input.required<boolean>();
  readonly isWide = input(false);
  readonly hasMessages = input.required<boolean>();
  /** Of the groups, by their places: their values in the column. */
  readonly groups = input.required<readonly string[]>();
  readonly opened = output<Evidence>();
  protected readonly ways: readonly TieWay[] = ['out', 'in'];
  protected readonly either: readonly TieWay[] = ['either'];
  protected readonly ties = computed(() => this.portrait().ties.slice(0, this.isWide() ? 20 : 4));

  protected shown({ out, into }: GroupTie, way: TieWay): string {
    if (way === 'either') return formatValue(out);
    return way === 'out' ? `→ ${formatValue(out)}` : `← ${formatValue(into)}`;
  }

  protected open(other: number, way: TieWay): void {
    const words = `${way === 'in' ? 'from' : 'to'} ${this.titles()[other]}`;
    this.opened.emit({ words, query: { group: this.portrait().group, towards: this.groups()[other], way } });
  }

  protected how({ ties, by }: GroupTie): string {
    const names = by.map((node) => this.portrait().names[node]).join(', ');
    return `${counted(ties, 'tie')}; most of it by ${names}`;
  }
}
