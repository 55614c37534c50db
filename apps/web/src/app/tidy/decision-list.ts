import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { Decision } from '@pebble/contract';
import { counted } from '../shared/words';

const SHOWN = 100;

/** What was decided of things of a sort, the newest first; each decision can be taken back by itself. */
@Component({
  selector: 'pt-decision-list',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>{{ counted(decisions().length, 'decision') }} that {{ decisions().length === 1 ? 'holds' : 'hold' }}</summary>
      <ol>
        @for (one of newest(); track one.id) {
          <li>
            <span>{{ says(one) }}</span>
            <button matButton
              [attr.aria-label]="'Take back: ' + says(one)"
              (click)="takenBack.emit([one.id])"
            >
              Take back
            </button>
          </li>
        } @empty {
          <li class="soft">Nothing was decided yet.</li>
        }
      </ol>
      @if (decisions().length > newest().length) {
        <p class="soft">{{ decisions().length - newest().length }} older ones are in the logbook.</p>
      }
    </details>
  `,
  styles: `
    summary {
      cursor: pointer;
      color: var(--tide);
      margin: 10px 0 4px;
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 8px;
      border-top: 1px solid var(--line);
      padding: 2px 0;
      font-size: 14px;
    }
    li span {
      overflow-wrap: anywhere;
    }
    .mdc-button {
      flex: none;
    }
  `,
})
export class DecisionList {
  readonly decisions = input.required<readonly Decision[]>();
  /** What things are called, by their keys. */
  readonly labels = input.required<ReadonlyMap<string, string>>();
  readonly takenBack = output<number[]>();
  protected readonly counted = counted;
  protected readonly newest = computed(() => this.decisions().slice(-SHOWN).reverse());

  protected says({ key, verdict }: Decision): string {
    const name = (of: string): string => this.labels().get(of) ?? of;
    switch (verdict.verdict) {
      case 'keep':
        return `${name(key)} is kept`;
      case 'drop':
        return `${name(key)} is left out`;
      case 'merge':
        return `${name(key)} counts as ${name(verdict.into)}`;
      case 'rename':
        return `${key} is called ${verdict.label}`;
      case 'kind':
        return `${name(key)} is of the kind ${verdict.kind}`;
      case 'category':
        return verdict.value === ''
          ? `${name(key)} has no ${verdict.name}`
          : `${name(key)} has the ${verdict.name} ${verdict.value}`;
    }
  }
}
