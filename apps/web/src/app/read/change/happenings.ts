import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Following } from '@pebble/contract';
import { endPhrase, happeningPhrase, type OneAndMany } from '@pebble/core';
import { counted } from '@pebble/core/first';
import type { FlowPick } from './flow-options';

/** What happened in one slice: to which line, and in words. */
interface Happened {
  readonly pick: FlowPick;
  readonly title: string;
  /** The slice whose accounts it opens. */
  readonly when: string;
  readonly words: string;
}

/** What happened to groups, slice by slice; each opens the accounts of the group. */
@Component({
  selector: 'pt-happenings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (slice of slices(); track slice.title; let first = $first) {
      <h4>{{ slice.title }}</h4>
      <ul>
        @for (one of slice.happened; track one.pick.line + one.words) {
          <li>
            <span class="name"
              ><button class="evidence" [attr.aria-label]="'Accounts of ' + one.title + ' in ' + one.when" (click)="picked.emit(one.pick)">
                {{ one.title }}
              </button>
              {{ one.words }}</span
            >
          </li>
        } @empty {
          <li class="faint">{{ first ? 'only smaller groups' : 'all go on about as large as before' }}</li>
        }
      </ul>
    }
  `,
  styleUrl: '../common/cells.scss',
})
export class Happenings {
  readonly following = input.required<Following>();
  readonly titleOf = input.required<(line: string) => string>();
  /** What nodes are called. */
  readonly words = input.required<OneAndMany>();
  readonly picked = output<FlowPick>();
  protected readonly slices = computed(() => {
    const { slices, groups, lines } = this.following();
    const titleOf = this.titleOf();
    const words = this.words();
    return slices.map((slice, s) => ({
      title: slice.title,
      happened: [
        ...groups
          .filter((one) => one.slice === s)
          .map((one): Happened => ({
            pick: { slice: s, line: one.line, to: null },
            title: titleOf(one.line),
            when: slice.title,
            // Before the first slice there is nothing that it could begin after.
            words: s === 0 ? counted(one.nodes, ...words) : happeningPhrase(one, titleOf, words),
          })),
        ...lines
          .filter(({ last }) => last === s - 1)
          .map((one): Happened => ({
            pick: { slice: one.last, line: one.line, to: null },
            title: titleOf(one.line),
            when: slices[one.last].title,
            words: endPhrase(one, titleOf),
          })),
      ].filter(({ words }) => words !== ''),
    }));
  });
}
