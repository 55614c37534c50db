import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Deleted } from '@pebble/contract';
import { Api } from '../api/api';
import { KeptRow } from './kept-row';
import { latest } from './latest';
import { stepRun } from './step-run';
import { day } from './words';

/** What can be deleted, and how the list speaks of it. */
const KINDS = {
  network: { many: 'networks', with: ' with its map, its plates and its measures' },
  plate: { many: 'plates', with: '' },
} as const;

/** What of a study was deleted: each can be taken back until a day that is said, or removed for good at once. */
@Component({
  selector: 'pt-deleted-list',
  imports: [KeptRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (things().length) {
      <details>
        <summary>Deleted {{ words().many }} ({{ things().length }})</summary>
        @for (one of things(); track one.id) {
          <pt-kept-row
            [name]="one.name"
            [note]="'until ' + until(one)"
            [busy]="run.busy()"
            [question]="'Remove “' + one.name + '”' + words().with + '? It cannot be taken back.'"
            (takenBack)="takenBack.emit(one)"
            (removed)="remove(one)"
          />
        }
        @if (run.problem(); as problem) {
          <p class="error" role="alert">{{ problem }}</p>
        }
      </details>
    }
  `,
  styles: `
    details {
      margin-top: 18px;
      color: var(--soft);
    }
    summary {
      cursor: pointer;
    }
  `,
})
export class DeletedList {
  readonly study = input.required<string>();
  readonly kind = input.required<keyof typeof KINDS>();
  /** What is there: what was deleted is asked for again when it changes. */
  readonly there = input.required<readonly unknown[]>();
  readonly takenBack = output<Deleted>();
  private readonly api = inject(Api);
  protected readonly run = stepRun();
  protected readonly words = computed(() => KINDS[this.kind()]);
  private readonly removals = signal(0);
  private readonly asked = computed(() => ({
    study: this.study(),
    there: this.there(),
    removals: this.removals(),
  }));
  private readonly deleted = latest(this.asked, ({ study }) => this.api.deleted({ study }));
  protected readonly things = computed(() =>
    (this.deleted() ?? []).filter(({ what }) => what === this.kind()),
  );

  protected until({ goneAt }: Deleted): string {
    return day(Date.parse(goneAt));
  }

  protected remove({ what, id }: Deleted): void {
    const asked = {
      networks: what === 'network' ? [String(id)] : [],
      sources: [],
      plates: what === 'plate' ? [Number(id)] : [],
    };
    this.run.start(this.study(), 'remove-for-good', asked, () => this.removals.update((n) => n + 1));
  }
}
