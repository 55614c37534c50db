import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { ForGood } from './for-good';

/** A row for something that is put away: what it is, how long it is kept, and the two ways out: back, or gone for good. */
@Component({
  selector: 'pt-kept-row',
  imports: [MatButton, ForGood],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="name">{{ name() }}</span>
    <span class="faint">{{ note() }}</span>
    @if (fault(); as why) {
      <span class="error">{{ why }}</span>
    } @else {
      <button matButton
        [disabled]="busy()"
        [attr.aria-label]="backLabel() || back() + ' ' + name()"
        (click)="takenBack.emit()"
      >
        {{ back() }}
      </button>
    }
    <pt-for-good
      act="Remove for good"
      [label]="'Remove ' + name() + ' for good'"
      [question]="question()"
      (confirmed)="removed.emit()"
    />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: center;
      margin: 1em 0;
    }
    .name {
      overflow-wrap: anywhere;
    }
  `,
})
export class KeptRow {
  readonly name = input.required<string>();
  /** Until when it is kept, or what it holds. */
  readonly note = input('');
  /** Why it cannot be taken back; null where it can. */
  readonly fault = input<string | null>(null);
  /** What taking it back is called, and for those who cannot see where it stands. */
  readonly back = input('Take back');
  readonly backLabel = input('');
  readonly busy = input(false);
  /** What will be gone, as a question. */
  readonly question = input.required<string>();
  readonly takenBack = output();
  readonly removed = output();
}
