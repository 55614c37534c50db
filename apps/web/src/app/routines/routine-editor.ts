import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { Routine, type KeptRoutine, type RoutineStep } from '@pebble/contract';
import {
  askableValues,
  routineProblems,
  withAnswerFixed,
  withoutStep,
  withStepMoved,
  withValueAsked,
  type AskableValue,
} from '@pebble/core';
import { Api } from '../api/api';
import { Busy } from '../shared/busy';
import { draftAbout } from '../shared/draft';
import { counted } from '../shared/words';
import type { OpenDraft } from './routine-drafts';

/** A routine before it is kept: its name, what it asks, its steps with their settings, and what could not go along. */
@Component({
  selector: 'pt-routine-editor',
  imports: [Busy, FormsModule, MatButton, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './routine-editor.html',
  styleUrls: ['../publish/fields.scss', './routine-editor.scss'],
})
export class RoutineEditor {
  readonly draft = input.required<OpenDraft>();
  readonly closed = output();
  readonly kept = output<KeptRoutine>();
  private readonly api = inject(Api);
  protected readonly busy = signal(false);
  protected readonly refusal = signal<string | null>(null);
  protected readonly counted = counted;
  protected readonly routine = linkedSignal(() => this.draft().routine);
  /** Settings that are no JSON yet, by the name of their step. */
  private readonly unread = draftAbout<Readonly<Record<string, string>>>(
    () => this.draft(),
    () => ({}),
  );
  protected readonly problems = computed(() => {
    const read = Routine.safeParse(this.routine());
    const unread = Object.entries(this.unread()).map(([where, what]) => ({ where, what }));
    if (!read.success)
      return [
        ...unread,
        ...read.error.issues.map(({ path, message }) => ({ where: path.join(', '), what: message })),
      ];
    return [...unread, ...routineProblems(read.data)];
  });

  protected change(part: Partial<Routine>): void {
    this.refusal.set(null);
    this.routine.update((routine) => ({ ...routine, ...part }));
  }

  protected ask(name: string, words: string): void {
    this.change({
      questions: this.routine().questions.map((one) => (one.name === name ? { ...one, ask: words } : one)),
    });
  }

  protected fix(name: string): void {
    this.change(withAnswerFixed(this.routine(), name));
  }

  protected values(step: RoutineStep): readonly AskableValue[] {
    return askableValues(this.routine(), step);
  }

  protected askFor(step: RoutineStep, { path }: AskableValue): void {
    this.change(withValueAsked(this.routine(), step.name, path));
  }

  protected words({ value }: AskableValue): string {
    if (value === null) return 'none';
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    return typeof value === 'object' ? value.join(', ') || 'none' : String(value);
  }

  protected move(step: RoutineStep, by: -1 | 1): void {
    this.change(withStepMoved(this.routine(), step.name, by));
  }

  protected leaveOut(step: RoutineStep): void {
    this.change(withoutStep(this.routine(), step.name));
  }

  protected settings(step: RoutineStep): string {
    return JSON.stringify(step.parameters, null, 2);
  }

  protected setSettings(step: RoutineStep, text: string): void {
    const { [step.name]: _, ...others } = this.unread();
    try {
      const parameters = JSON.parse(text) as Record<string, unknown>;
      this.unread.set(others);
      this.change({
        steps: this.routine().steps.map((one) => (one.name === step.name ? { ...one, parameters } : one)),
      });
    } catch (error) {
      this.unread.set({ ...others, [step.name]: `Its settings are no JSON: ${(error as Error).message}` });
    }
  }

  protected keep(): void {
    const { id } = this.draft();
    const routine = this.routine();
    this.busy.set(true);
    const asked =
      id === null ? this.api.keepRoutine(routine) : this.api.changeRoutine({ routine: id }, routine);
    asked.subscribe({
      next: (kept) => {
        this.busy.set(false);
        this.kept.emit(kept);
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.refusal.set(error.message);
      },
    });
  }
}
