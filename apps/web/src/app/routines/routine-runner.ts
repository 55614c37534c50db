import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import type { KeptRoutine, RoutineAnswer, RoutineAnswers, RoutineQuestion } from '@pebble/contract';
import { debounceTime, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { asking } from '../shared/asking';
import { Busy } from '../shared/busy';
import { draftAbout } from '../shared/draft';
import { counted, duration } from '../shared/words';
import { Notices } from '../store/notices';
import { WorkActions } from '../store/work.actions';
import { QuestionField } from './question-field';
import { VariationForm, type Variation } from './variation-form';

/** Milliseconds without a further answer after which it is asked what the routine would do. */
const REST = 400;

/** Asks what a routine asks, says what it will do and for how long, and runs it. */
@Component({
  selector: 'pt-routine-runner',
  imports: [Busy, MatButton, MatProgressBar, QuestionField, VariationForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (question of questions(); track question.name) {
      <pt-question-field
        [study]="study()"
        [question]="question"
        [value]="valueOf(question)"
        (answered)="answer(question.name, $event)"
      />
    }
    <div class="plan" role="status">
      @if (waitsFor(); as file) {
        <p class="soft">{{ file.ask }} What the routine will do is said here once it is chosen.</p>
      } @else if (plan.error(); as why) {
        <p class="error">{{ why }}</p>
      } @else if (plan.found(); as found) {
        @for (problem of found.problems; track $index) {
          <p class="error"><b>{{ problem.where }}</b>: {{ problem.what }}</p>
        } @empty {
          <p>{{ found.paragraph }}</p>
          @if (found.seconds !== null) {
            <p class="faint">It takes about {{ duration(found.seconds * 1000) }}.</p>
          }
        }
      } @else {
        <mat-progress-bar mode="indeterminate" aria-label="Looking what it will do" />
      }
    </div>
 <button matButton="filled" [disabled]="!canRun()" [ptBusy]="busy()" (click)="run()">Run the routine</button>
    @if (varies()) {
      <details>
        <summary>Try several values</summary>
        <pt-variation-form
          [questions]="questions()"
          [canRun]="canRun()"
          [busy]="busy()"
          (asked)="vary($event)"
        />
      </details>
    }
  `,
  styles: `
    .plan {
      min-height: 60px;
      max-width: 70ch;
      margin: 12px 0;
      overflow-wrap: anywhere;
    }
    details {
      margin-top: 14px;
    }
    summary {
      cursor: pointer;
      color: var(--tide);
      width: max-content;
    }
    .plan p {
      margin: 4px 0;
    }
  `,
})
export class RoutineRunner {
  readonly study = input.required<string>();
  readonly kept = input.required<KeptRoutine>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  protected readonly busy = signal(false);
  protected readonly duration = duration;
  protected readonly questions = computed(() => this.kept().routine.questions);
  /** What was answered; of another routine nothing yet. */
  private readonly answers = draftAbout<RoutineAnswers>(
    () => this.kept().id,
    () => ({}),
  );
  protected readonly varies = computed(() =>
    this.questions().some(({ kind }) => kind !== 'file' && kind !== 'list'),
  );
  protected readonly waitsFor = computed(() =>
    this.questions().find(({ kind, name }) => kind === 'file' && this.answers()[name] === undefined),
  );
  private readonly asked = computed(() =>
    this.waitsFor() ? null : { study: this.study(), routine: this.kept().routine, answers: this.answers() },
  );
  private readonly settled = toSignal(toObservable(this.asked).pipe(debounceTime(REST)), {
    initialValue: null,
  });
  protected readonly plan = asking(this.settled, ({ study, routine, answers }) =>
    this.api.planRoutine({ study }, { routine, answers }),
  );
  protected readonly canRun = computed(
    () => this.settled() === this.asked() && this.plan.found()?.problems.length === 0,
  );

  protected valueOf(question: RoutineQuestion): RoutineAnswer | undefined {
    return this.answers()[question.name] ?? (question.kind === 'file' ? undefined : question.default);
  }

  protected answer(name: string, value: RoutineAnswer): void {
    this.answers.update((answers) => ({ ...answers, [name]: value }));
  }

  protected run(): void {
    const asked = this.asked();
    if (!asked) return;
    const { study, routine, answers } = asked;
    this.begin(this.api.runRoutine({ study }, { routine, answers }), ({ id }) => {
      this.store.dispatch(WorkActions.routineReported({ run: id }));
      this.notices.say(`“${routine.name}” is running; its steps come into the logbook.`);
    });
  }

  protected vary({ question, values }: Variation): void {
    const asked = this.asked();
    if (!asked) return;
    const { study, routine, answers } = asked;
    this.begin(this.api.varyRoutine({ study }, { routine, answers, question, values }), ([{ id }]) => {
      this.store.dispatch(WorkActions.routineReported({ run: id }));
      this.notices.say(
        `“${routine.name}” is running with ${counted(values.length, 'value')}, one after the other.`,
      );
    });
  }

  private begin<T>(asked: Observable<T>, begun: (answer: T) => void): void {
    this.busy.set(true);
    asked.subscribe({
      next: (answer) => {
        this.busy.set(false);
        // What was sent is used up.
        this.answers.set({});
        begun(answer);
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.store.dispatch(WorkActions.failed({ message: error.message }));
      },
    });
  }
}
