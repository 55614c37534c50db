import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Deleted, Plate } from '@pebble/contract';
import { Api } from '../../api/api';
import { KeptRow } from '../../shared/kept-row';
import { latest } from '../../shared/latest';
import { stepRun } from '../../shared/step-run';
import { day } from '../../shared/words';

/** Plates that were deleted: each can be taken back until a day that is said, or removed for good at once. */
@Component({
  selector: 'pt-deleted-plates',
  imports: [KeptRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (plates().length) {
      <details>
        <summary>Deleted plates ({{ plates().length }})</summary>
        @for (one of plates(); track one.id) {
          <pt-kept-row
            [name]="one.name"
            [note]="'until ' + until(one)"
            [busy]="run.busy()"
            [question]="'Remove the plate “' + one.name + '”? It cannot be taken back.'"
            (takenBack)="takeBack(one)"
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
      margin-top: 12px;
      color: var(--soft);
    }
    summary {
      cursor: pointer;
    }
  `,
})
export class DeletedPlates {
  readonly study = input.required<string>();
  /** The plates that are there: what was deleted is asked for again when they change. */
  readonly there = input.required<readonly Plate[]>();
  private readonly api = inject(Api);
  protected readonly run = stepRun();
  private readonly removals = signal(0);
  private readonly asked = computed(() => ({
    study: this.study(),
    there: this.there(),
    removals: this.removals(),
  }));
  private readonly deleted = latest(this.asked, ({ study }) => this.api.deleted({ study }));
  protected readonly plates = computed(() => (this.deleted() ?? []).filter((one) => one.what === 'plate'));

  protected until({ goneAt }: Deleted): string {
    return day(Date.parse(goneAt));
  }

  protected takeBack({ id, name: title }: Deleted): void {
    this.run.start(this.study(), 'restore-plate', { plate: Number(id), title }, () => undefined);
  }

  protected remove({ id }: Deleted): void {
    const asked = { networks: [], sources: [], plates: [Number(id)] };
    this.run.start(this.study(), 'remove-for-good', asked, () => this.removals.update((n) => n + 1));
  }
}
