import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Deleted, Network } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { KeptRow } from '../shared/kept-row';
import { latest } from '../shared/latest';
import { day } from '../shared/words';
import { WorkActions } from '../store/work.actions';

/** Networks of a study that were deleted: each can be taken back until a day that is said, or removed for good at once. */
@Component({
  selector: 'pt-deleted-list',
  imports: [KeptRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (networks().length) {
      <details>
        <summary>Deleted networks ({{ networks().length }})</summary>
        @for (one of networks(); track one.id) {
          <pt-kept-row
            [name]="one.name"
            [note]="'until ' + until(one)"
            [question]="'Remove “' + one.name + '” with its map and its measures? It cannot be taken back.'"
            (takenBack)="restore(one)"
            (removed)="remove(one)"
          />
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
  /** The networks that are there: what was deleted is asked for again when they change. */
  readonly there = input.required<readonly Network[]>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly removals = signal(0);
  private readonly asked = computed(() => ({
    study: this.study(),
    there: this.there(),
    removals: this.removals(),
  }));
  private readonly deleted = latest(this.asked, ({ study }) => this.api.deleted({ study }));
  protected readonly networks = computed(() =>
    (this.deleted() ?? []).filter((one) => one.what === 'network'),
  );

  protected until({ goneAt }: Deleted): string {
    return day(Date.parse(goneAt));
  }

  protected restore({ id }: Deleted): void {
    this.store.dispatch(WorkActions.networkRestoreRequested({ id: String(id) }));
  }

  protected remove({ id }: Deleted): void {
    this.api
      .step(this.study(), 'remove-for-good', { networks: [String(id)], sources: [], plates: [] })
      .subscribe({
        next: () => this.removals.update((n) => n + 1),
        error: (error: Error) => this.store.dispatch(WorkActions.failed({ message: error.message })),
      });
  }
}
