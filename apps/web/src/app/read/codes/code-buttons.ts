import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { Coding } from './coding';

/** Keys that codes have at most. */
export const KEYS = 9;

/** The codes of the book to press, the first nine with their keys; those that are given stand out. */
@Component({
  selector: 'pt-code-buttons',
  imports: [MatButton, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (set of sets(); track set.name) {
      <div class="set" role="group" [attr.aria-label]="set.name || 'Codes'">
        @if (set.name) {
          <h4>{{ set.name }}</h4>
        }
        @for (code of set.codes; track code.id) {
          <button
            matButton="outlined"
            [class.given]="given().includes(code.id)"
            [style.--code]="code.colour"
            [style.border-left-color]="code.colour"
            [attr.aria-pressed]="given().includes(code.id)"
            [matTooltip]="code.definition"
            (click)="toggled.emit(code.id)"
          >
            @if (hasKeys() && code.key <= keys) {
              <kbd>{{ code.key }}</kbd>
            }
            {{ code.name }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    .set {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      margin-bottom: 8px;
    }
    h4 {
      margin: 0;
      min-width: 90px;
      font: 600 12px/1.3 var(--ui);
      color: var(--soft);
    }
    button {
      border-left-width: 5px;
    }
    .given {
      background: color-mix(in srgb, var(--code) 22%, var(--sheet));
      font-weight: 700;
    }
    kbd {
      font: 600 11px/1 var(--ui);
      color: var(--soft);
      margin-right: 4px;
    }
  `,
})
export class CodeButtons {
  readonly given = input.required<readonly number[]>();
  readonly hasKeys = input(false);
  readonly toggled = output<number>();
  private readonly coding = inject(Coding);
  protected readonly keys = KEYS;
  /** Codes by their sets, in the order of the book. */
  protected readonly sets = computed(() => {
    const codes = this.coding.codes().map((code, i) => ({ ...code, key: i + 1 }));
    const names = [...new Set(codes.map(({ set }) => set))];
    return names.map((name) => ({ name, codes: codes.filter(({ set }) => set === name) }));
  });
}
