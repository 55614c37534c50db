import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { RouterLink } from '@angular/router';
import { STEP_TRAITS, type Step } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Notices } from '../store/notices';
import { RoutineDrafts } from '../routines/routine-drafts';
import { Busy } from '../shared/busy';
import { SaveData } from '../shared/save-data';
import { counted, duration, instant } from '../shared/words';
import { Api } from '../api/api';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';

/** Every step of the study, the newest first, with its settings, counts, seed and sentence. */
@Component({
  selector: 'pt-logbook',
  imports: [Busy, MatButton, MatCheckbox, RouterLink, SaveData],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './logbook.html',
  styleUrl: './logbook.scss',
})
export class Logbook {
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly api = inject(Api);
  protected readonly steps = this.store.selectSignal(work.selectSteps);
  protected readonly drafts = inject(RoutineDrafts);
  /** Whether steps are being chosen for a routine, and which ones. */
  protected readonly isChoosing = signal(false);
  protected readonly chosen = signal<ReadonlySet<number>>(new Set());
  protected readonly chosenPhrase = computed(() => counted(this.chosen().size, 'step'));
  protected readonly duration = duration;
  protected readonly instant = instant;
  protected readonly methods = computed(() =>
    [...this.steps()]
      .reverse()
      .filter(({ state, kind }) => state === 'done' && STEP_TRAITS[kind].chapter !== null)
      .map(({ sentence }) => sentence)
      .join(' '),
  );

  protected text(value: unknown): string {
    return JSON.stringify(value, null, 2);
  }

  protected canRunAgain({ state, kind }: Step): boolean {
    return ['failed', 'cancelled', 'interrupted'].includes(state) && kind !== 'create-study';
  }

  protected runAgain(step: Step): void {
    this.api.step(step.study, step.kind, step.parameters as never).subscribe({
      error: (error: Error) => this.store.dispatch(WorkActions.failed({ message: error.message })),
    });
  }

  protected tick(step: number, isIn: boolean): void {
    const chosen = new Set(this.chosen());
    if (isIn) chosen.add(step);
    else chosen.delete(step);
    this.chosen.set(chosen);
  }

  protected stopChoosing(): void {
    this.isChoosing.set(false);
    this.chosen.set(new Set());
  }

  protected makeRoutine(): void {
    const [{ study }] = this.steps();
    this.drafts.make(study, { name: 'New routine', steps: [...this.chosen()] });
  }

  protected async copy(): Promise<void> {
    await navigator.clipboard.writeText(this.methods());
    this.notices.say('The methods text was copied.');
  }
}
