import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import type {
  KeptRoutine,
  Routine,
  RoutineAnswer,
  RoutineAnswers,
  RoutineQuestion,
  StandingWhen,
} from '@pebble/contract';
import { onMessagesThere } from '@pebble/core';
import { debounceTime, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { asking } from '../shared/asking';
import { Busy } from '../shared/busy';
import { draftAbout } from '../shared/draft';
import { counted, duration } from '../shared/words';
import { Notices } from '../store/notices';
import { WorkActions } from '../store/work.actions';
import { QuestionField } from './question-field';
import { StandingForm } from './standing-form';
import { VariationForm, type Variation } from './variation-form';

/** Milliseconds without a further answer after which it is asked what the routine would do. */
const REST = 400;

/** Asks what a routine asks, says what it will do and for how long, and runs it. */
@Component({
  selector: 'pt-routine-runner',
  imports: [
    Busy,
    FormsModule,
    MatButton,
    MatCheckbox,
    MatFormField,
    MatInput,
    MatProgressBar,
    QuestionField,
    StandingForm,
    VariationForm,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (takesIn()) {
      <mat-checkbox [ngModel]="isOnThese()" (ngModelChange)="isOnThese.set($event)">
        On the messages that this study has, without new files
      </mat-checkbox>
    }
    <div class="questions">
    @for (question of questions(); track question.name) {
      <pt-question-field
        [study]="study()"
        [question]="question"
        [value]="valueOf(question)"
        (answered)="answer(question.name, $event)"
      />
    }
    </div>
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
    <details>
      <summary>Run it in a new study</summary>
      <form class="new" (submit)="$event.preventDefault(); beginStudy(called.value)">
        <label class="field"
          >Name of the study
          <mat-form-field><input matInput #called maxlength="200" required [value]="kept().routine.name" /></mat-form-field>
        </label>
        <button matButton="outlined" [ptBusy]="busy()">Begin the study</button>
        <p class="faint">The routine is open there: choose its files, and run it.</p>
      </form>
    </details>
    <details>
      <summary>Let it run by itself</summary>
      <pt-standing-form [study]="study()" [busy]="busy()" (asked)="letStand($event)" />
    </details>
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
  styleUrl: '../publish/fields.scss',
  styles: `
    .plan {
      min-height: 60px;
      max-width: 70ch;
      margin: 12px 0;
      overflow-wrap: anywhere;
    }
    details {
      margin-top: 10px;
    }
    mat-checkbox {
      margin-left: -4px;
    }
    .questions {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
      align-items: end;
      gap: 0 20px;
      max-width: 700px;
    }
    .questions pt-question-field {
      margin: 2px 0;
    }
    .new {
      max-width: 420px;
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
  private readonly router = inject(Router);
  protected readonly busy = signal(false);
  protected readonly duration = duration;
  /** What was answered, and files that were sent, are those of one routine in one study. */
  private readonly about = (): readonly unknown[] => [this.study(), this.kept().id];
  private readonly answers = draftAbout<RoutineAnswers>(this.about, () => ({}));
  /** Whether it runs on what the study has. */
  protected readonly isOnThese = draftAbout(this.about, () => false);
  protected readonly takesIn = computed(() =>
    this.kept().routine.steps.some(({ kind }) => kind === 'import-source'),
  );
  private readonly routine = computed(() => {
    const { routine } = this.kept();
    return this.isOnThese() ? onMessagesThere(routine) : routine;
  });
  protected readonly questions = computed(() => this.routine().questions);
  protected readonly varies = computed(() => this.questions().some(({ kind }) => kind !== 'file'));
  protected readonly waitsFor = computed(() =>
    this.questions().find(({ kind, name }) => kind === 'file' && this.answers()[name] === undefined),
  );
  private readonly asked = computed(() =>
    this.waitsFor()
      ? null
      : { study: this.study(), routine: this.routine(), answers: this.answersTo(this.routine()) },
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

  /** What was answered of what a routine asks. */
  private answersTo({ questions }: Routine): RoutineAnswers {
    const asked = new Set(questions.map(({ name }) => name));
    return Object.fromEntries(Object.entries(this.answers()).filter(([name]) => asked.has(name)));
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

  protected beginStudy(name: string): void {
    const routine = this.kept().id;
    this.begin(this.api.createStudy({ name }), ({ id }) => {
      void this.router.navigate(['/studies', id, 'logbook', 'routines'], { queryParams: { routine } });
    });
  }

  protected letStand(when: StandingWhen): void {
    const study = this.study();
    const routine = onMessagesThere(this.kept().routine);
    const answers = this.answersTo(routine);
    this.begin(this.api.beginStanding({ study }, { routine, answers, when }), ({ lastRun }) => {
      this.store.dispatch(WorkActions.routineReported({ run: lastRun ?? 0 }));
      this.notices.say(`“${routine.name}” runs by itself from now on.`);
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
