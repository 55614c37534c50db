import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { NamedFilter, SavedFilter, Source, TakenMessages } from '@pebble/contract';
import { filterPhrase } from '@pebble/core';

type Choice = Pick<TakenMessages, 'only' | 'except' | 'withoutSources'>;

/** Which messages a weave takes: by filters that were kept while reading, and without some sources. */
@Component({
  selector: 'pt-taken-fields',
  imports: [MatInput, MatFormField, MatCheckbox, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let t = taken();
    <details [open]="isChosen()">
      <summary>Which messages are taken: {{ isChosen() ? 'a choice' : 'all of this time' }}</summary>
      @for (part of parts; track part.name) {
        <div>
          {{ part.says }}
          <mat-form-field><select matNativeControl
            [attr.aria-label]="part.says"
            [ngModel]="nameOf(t[part.name])"
            (ngModelChange)="choose(part.name, $event)"
          >
            <option value="">{{ part.none }}</option>
            @for (filter of offered()[part.name]; track filter.name) {
              <option [value]="filter.name">{{ filter.name }}: {{ phrase(filter) }}</option>
            }
          </select></mat-form-field>
        </div>
      }
      @if (filters().length === 0) {
        <p class="hint">
          Filters are kept on the reading list under Gather: set one there, and choose “Keep this filter”.
        </p>
      }
      @if (sources().length > 1) {
        @for (source of sources(); track source.id) {
          <mat-checkbox
              [ngModel]="!isLeftOut(source)"
              (ngModelChange)="leaveOut(source, !$event)">{{ source.name }}</mat-checkbox>
        }
      }
    </details>
  `,
  styleUrl: './sentence.scss',
})
export class TakenFields {
  readonly taken = input.required<Choice>();
  /** Filters of the reading list that were kept. */
  readonly filters = input.required<readonly SavedFilter[]>();
  readonly sources = input.required<readonly Source[]>();
  readonly changed = output<Partial<Choice>>();
  protected readonly parts = [
    { name: 'only', says: 'Only messages of the filter', none: 'none: all messages' },
    { name: 'except', says: 'Without messages of the filter', none: 'none' },
  ] as const;
  protected readonly isChosen = computed(() => {
    const { only, except, withoutSources } = this.taken();
    return only !== null || except !== null || withoutSources.length > 0;
  });
  /** Kept filters, and the one that the sentence has, though it was forgotten since. */
  protected readonly offered = computed(() => {
    const kept: readonly NamedFilter[] = this.filters().map(({ name, filter }) => ({ name, filter }));
    const withOwn = (own: NamedFilter | null): readonly NamedFilter[] =>
      own === null || kept.some(({ name }) => name === own.name) ? kept : [...kept, own];
    return { only: withOwn(this.taken().only), except: withOwn(this.taken().except) };
  });

  protected nameOf(filter: NamedFilter | null): string {
    return filter?.name ?? '';
  }

  protected phrase({ filter }: NamedFilter): string {
    return filterPhrase(filter);
  }

  protected choose(part: 'only' | 'except', name: string): void {
    this.changed.emit({ [part]: this.offered()[part].find((filter) => filter.name === name) ?? null });
  }

  protected isLeftOut({ id }: Source): boolean {
    return this.taken().withoutSources.some((source) => source.id === id);
  }

  protected leaveOut({ id, name }: Source, isOut: boolean): void {
    const others = this.taken().withoutSources.filter((source) => source.id !== id);
    this.changed.emit({ withoutSources: isOut ? [...others, { id, name }] : others });
  }
}
