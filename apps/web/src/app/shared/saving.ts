import { DestroyRef, inject, signal } from '@angular/core';
import type { Step, StepKind, StepParameters } from '@pebble/contract';
import { map, switchMap, type Observable, type Subscription } from 'rxjs';
import { Api } from '../api/api';
import { saveFile } from './save-file';

/** What is saved, and the step that writes down that it went out. */
interface Outgoing<K extends StepKind> {
  readonly study: string;
  readonly kind: K;
  readonly parameters: StepParameters<K>;
  /** With the end by which its form is known. */
  readonly name: string;
  readonly type: string;
}

/** A file that the server makes, on its way: it can be stopped, and only what came is written down and saved. */
class Saving {
  readonly busy = signal(false);
  readonly problem = signal<string | null>(null);
  private running: Subscription | null = null;

  constructor(private readonly api: Api) {}

  /** @param done is told of a file that was saved, and of no other */
  start<K extends StepKind>(
    bytes: Observable<ArrayBuffer>,
    { study, kind, parameters, name, type }: Outgoing<K>,
    done: (step: Step) => void,
  ): void {
    this.stop();
    this.busy.set(true);
    this.problem.set(null);
    this.running = bytes
      .pipe(switchMap((file) => this.api.step(study, kind, parameters).pipe(map((step) => ({ file, step })))))
      .subscribe({
        next: ({ file, step }) => {
          this.busy.set(false);
          if (step.state !== 'done') return this.problem.set(step.error);
          saveFile(new Blob([file], { type }), name);
          done(step);
        },
        error: (error: Error) => {
          this.busy.set(false);
          this.problem.set(error.message);
        },
      });
  }

  stop(): void {
    this.running?.unsubscribe();
    this.busy.set(false);
  }
}

/** One for a dialog; where fields are made. It ends with the dialog. */
export function saving(): Saving {
  const one = new Saving(inject(Api));
  inject(DestroyRef).onDestroy(() => one.stop());
  return one;
}
