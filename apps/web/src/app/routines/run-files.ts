import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { RoutineRun } from '@pebble/contract';
import { Api } from '../api/api';
import { LeakGuard } from '../shared/leaks/leak-guard';
import { SavingNote } from '../shared/saving-note';
import { saving } from '../shared/saving';
import { counted } from '../shared/words';
import { firstValueFrom } from 'rxjs';
import { Notices } from '../store/notices';

/** Saves what a run gives as files, once it is looked through for people who have pseudonyms. */
@Component({
  selector: 'pt-run-files',
  imports: [MatButton, SavingNote],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button matButton="outlined" [disabled]="saving.busy() || isLookedThrough()" (click)="save()">
      Save its {{ counted(count(), 'file') }}
    </button>
    @if (isLookedThrough()) {
      <span class="faint" role="status">It is being looked through for people …</span>
    }
    <pt-saving-note
      what="the files of the run"
      [busy]="saving.busy()"
      [problem]="problem() ?? saving.problem()"
      (stopped)="saving.stop()"
    />
  `,
})
export class RunFiles {
  readonly run = input.required<RoutineRun>();
  private readonly api = inject(Api);
  private readonly guard = inject(LeakGuard);
  private readonly notices = inject(Notices);
  protected readonly counted = counted;
  protected readonly saving = saving();
  protected readonly isLookedThrough = signal(false);
  protected readonly problem = signal<string | null>(null);
  /** Files of what was made. */
  protected readonly count = computed(() => {
    const { routine, made } = this.run();
    return routine.outputs.filter(({ of }) => made[of] !== undefined).length;
  });

  protected async save(): Promise<void> {
    const { study, id, routine } = this.run();
    this.problem.set(null);
    this.isLookedThrough.set(true);
    try {
      const leaks = await firstValueFrom(this.api.routineLeaks({ study, routineRun: id }));
      this.isLookedThrough.set(false);
      const allowed = await this.guard.found(leaks);
      if (allowed === 'no') return;
      const parameters = { routineRun: id, files: this.count(), allowed };
      const name = `${routine.name} run ${id}.zip`;
      const outgoing = { study, kind: 'export-run' as const, parameters, name, type: 'application/zip' };
      this.saving.start(this.api.routineOutputs({ study, routineRun: id }), outgoing, () =>
        this.notices.say(`Saved as ${name}.`),
      );
    } catch (error) {
      this.isLookedThrough.set(false);
      this.problem.set((error as Error).message);
    }
  }
}
