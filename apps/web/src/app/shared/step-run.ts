import { inject, signal } from '@angular/core';
import type { Step, StepKind, StepParameters } from '@pebble/contract';
import type { Observable } from 'rxjs';
import { Api } from '../api/api';

/** A step that a panel asks for: whether it is running, and why it was not done. */
class StepRun {
  readonly busy = signal(false);
  readonly problem = signal<string | null>(null);

  constructor(private readonly api: Api) {}

  /** @param done is told of a step that was done, and of no other. @param failed where it was not done */
  start<K extends StepKind>(
    study: string,
    kind: K,
    parameters: StepParameters<K>,
    done: (step: Step) => void,
    failed: () => void = () => undefined,
  ): void {
    this.follow(this.api.step(study, kind, parameters), done, failed);
  }

  /** The same of a step that is asked for already, with all that has to come before it. */
  follow(asked: Observable<Step>, done: (step: Step) => void, failed: () => void = () => undefined): void {
    const fail = (problem: string | null): void => {
      this.problem.set(problem);
      failed();
    };
    this.busy.set(true);
    this.problem.set(null);
    asked.subscribe({
      next: (step) => {
        this.busy.set(false);
        if (step.state === 'done') done(step);
        else fail(step.error);
      },
      error: (error: Error) => {
        this.busy.set(false);
        fail(error.message);
      },
    });
  }
}

/** One for a panel; where fields are made. */
export function stepRun(): StepRun {
  return new StepRun(inject(Api));
}
