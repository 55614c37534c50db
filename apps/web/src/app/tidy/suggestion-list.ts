import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { NewDecision, Suggestion } from '@pebble/contract';
import { counted } from '../shared/words';
import { ThingExample } from './thing-example';

/** Pairs that may be the same thing; nothing is merged without a yes. */
@Component({
  selector: 'pt-suggestion-list',
  imports: [MatInput, MatFormField, MatButton, ThingExample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>May be the same</h3>
    @for (pair of suggestions().slice(0, shown); track pair.a.key + ' ' + pair.b.key) {
      <div class="pair">
        <p>
          <b>{{ pair.a.label }}</b> ({{ counted(pair.a.messages, 'message') }}) and
          <b>{{ pair.b.label }}</b> ({{ counted(pair.b.messages, 'message') }})
        </p>
        <p class="soft why">
          {{ pair.reason }} ·
          <button matButton class="examples" [attr.aria-expanded]="shownPair() === keyOf(pair)" (click)="show(pair)">
            examples
          </button>
        </p>
        @if (shownPair() === keyOf(pair)) {
          <pt-thing-example [study]="study()" [thing]="pair.a" />
          <pt-thing-example [study]="study()" [thing]="pair.b" />
        }
        <div class="acts">
        <mat-form-field><input matInput #label aria-label="Name of the merged one" [value]="pair.label" /></mat-form-field>
        <button matButton="outlined" (click)="decided.emit(yes(pair, label.value))">Merge</button>
        <button matButton (click)="decided.emit(apart(pair))">Keep apart</button>
        </div>
      </div>
    } @empty {
      <p class="soft">No two look alike.</p>
    }
    @if (suggestions().length > shown) {
      <p class="soft">{{ suggestions().length - shown }} more pairs follow.</p>
    }
  `,
  styles: `
    .pair {
      border-top: 1px solid var(--line);
      padding: 7px 0;
    }
    p {
      margin: 0 0 3px;
      overflow-wrap: anywhere;
    }
    .why {
      font-size: 13px;
    }
    .examples {
      padding: 0;
      font-size: 13px;
    }
    .acts {
      display: flex;
      gap: 6px;
    }
    .box {
      width: 150px;
    }
  `,
})
export class SuggestionList {
  readonly study = input.required<string>();
  readonly suggestions = input.required<readonly Suggestion[]>();
  readonly decided = output<NewDecision[]>();
  protected readonly shown = 12;
  protected readonly counted = counted;
  /** The pair of which examples are shown. */
  protected readonly shownPair = signal<string | null>(null);

  protected keyOf({ a, b }: Suggestion): string {
    return `${a.key} ${b.key}`;
  }

  protected show(pair: Suggestion): void {
    const key = this.keyOf(pair);
    this.shownPair.update((shown) => (shown === key ? null : key));
  }

  protected yes({ a, b, label }: Suggestion, typed: string): NewDecision[] {
    const name = typed.trim() || label;
    return [
      { key: b.key, verdict: { verdict: 'merge', into: a.key } },
      name === a.label
        ? { key: a.key, verdict: { verdict: 'keep' } }
        : { key: a.key, verdict: { verdict: 'rename', label: name } },
    ];
  }

  protected apart({ a, b }: Suggestion): NewDecision[] {
    return [a, b].map(({ key }) => ({ key, verdict: { verdict: 'keep' } }));
  }
}
