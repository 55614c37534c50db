import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { FullPortrait, MessageKind } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import type { Evidence } from '../common/evidence';

/** How a group speaks: kinds of messages beside the rest, tone and incivility where they were scored. */
@Component({
  selector: 'pt-speech',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    <ul>
      @for (one of kinds(); track one.kind) {
        <li>
          <span class="name">{{ one.kind }}</span>
          <button class="evidence" [matTooltip]="one.how" [attr.aria-label]="'Read each ' + one.kind + ': ' + one.how" (click)="open(one.kind)">
            {{ count(one.messages) }}
          </button>
          <span class="times">{{ one.share }} <span class="faint">({{ one.elsewhere }})</span></span>
        </li>
      }
      @if (portrait().answers; as a) {
        @if (a.all > 0) {
          <li matTooltip="Of its answers to messages that were collected too">
            <span class="name">answers within the group</span>
            <button class="evidence" aria-label="Read the answers within the group" (click)="openAnswers()">{{ count(a.within) }}</button>
            <span class="times">{{ percent(a.within, a.all) }}</span>
          </li>
        }
      }
      @for (one of scores(); track one.scorer) {
        <li [matTooltip]="one.how">
          <span class="name">{{ one.scorer }}</span>
          <span class="number">{{ one.mean }}</span>
          <span class="times faint">({{ one.elsewhere }})</span>
        </li>
      }
    </ul>
  `,
})
export class Speech {
  readonly portrait = input.required<FullPortrait>();
  /** Messages of the network. */
  readonly all = input.required<number>();
  readonly opened = output<Evidence>();
  protected readonly count = formatCount;
  protected readonly kinds = computed(() => {
    const { kinds, messages } = this.portrait();
    const rest = this.all() - messages;
    return kinds.map(({ kind, messages: here, elsewhere }) => ({
      kind,
      messages: here,
      share: percent(here, messages),
      elsewhere: percent(elsewhere, rest),
      how: `${percent(here, messages)} of the messages here, ${percent(elsewhere, rest)} elsewhere`,
    }));
  });
  protected readonly scores = computed(() =>
    this.portrait().scores.map(({ scorer, mean, scored, meanElsewhere, scoredElsewhere }) => ({
      scorer,
      mean: shown(mean),
      elsewhere: shown(meanElsewhere),
      how: `Mean of ${counted(scored, 'message')} here that could be scored, of ${formatCount(scoredElsewhere)} elsewhere`,
    })),
  );

  protected readonly percent = percent;

  protected openAnswers(): void {
    this.opened.emit({
      words: 'answers within the group',
      query: { group: this.portrait().group, answers: 'within' },
    });
  }

  protected open(kind: MessageKind): void {
    this.opened.emit({ words: `kind: ${kind}`, query: { group: this.portrait().group, kind } });
  }
}

function percent(part: number, all: number): string {
  return all === 0 ? '–' : `${Math.round((100 * part) / all)} %`;
}

function shown(value: number | null): string {
  return value === null ? '–' : value.toFixed(2);
}
