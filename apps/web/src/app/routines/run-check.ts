import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import type {
  RoutineAnswer,
  RoutineQuestion,
  RoutineRun,
  RunCheck as Check,
  SentFile,
} from '@pebble/contract';
import type { Subscription } from 'rxjs';
import { Api } from '../api/api';
import { draftAbout } from '../shared/draft';
import { instant } from '../shared/words';
import { QuestionField } from './question-field';

/** Says from what a run can be made again, does so in a place of its own, and says whether the same came out. */
@Component({
  selector: 'pt-run-check',
  imports: [MatButton, MatProgressBar, QuestionField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>
      It can be made again from {{ from() }}, the routine, its answers and version {{ run().version }} of the application.
    </p>
    @for (question of questions(); track question.name) {
      <pt-question-field
        [study]="run().study"
        [question]="question"
        [value]="files()[question.name]"
        (answered)="give(question.name, $event)"
      />
    }
    @if (isBusy()) {
      <p class="row" role="status">
        <span>It is being made again, in a place of its own …</span>
        <button matButton (click)="stop()">Stop</button>
      </p>
      <mat-progress-bar mode="indeterminate" aria-label="Making it again" />
    } @else {
      <button matButton="outlined" [disabled]="lacks()" (click)="verify()">Make it again and compare</button>
    }
    @if (problem(); as why) {
      <p class="error" role="alert">{{ why }}</p>
    }
    @if (run().verified; as check) {
      <p class="faint">{{ instant(check.at) }}, version {{ check.version }}:</p>
      <ul>
        @for (part of check.parts; track part.step) {
          <li [class.wrong]="!part.isSame">{{ words(part) }}</li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: block;
      overflow-wrap: anywhere;
    }
    p {
      margin: 4px 0;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
    }
    ul {
      margin: 4px 0;
      padding-left: 22px;
    }
    .wrong {
      color: var(--danger);
    }
  `,
})
export class RunCheck {
  readonly run = input.required<RoutineRun>();
  /** The run once it was made again. */
  readonly checked = output<RoutineRun>();
  private readonly api = inject(Api);
  protected readonly instant = instant;
  protected readonly isBusy = signal(false);
  protected readonly problem = signal<string | null>(null);
  private running: Subscription | null = null;
  protected readonly files = draftAbout<Readonly<Record<string, SentFile[]>>>(
    () => this.run().id,
    () => ({}),
  );
  protected readonly from = computed(() => {
    const files = Object.values(this.run().inputs).flat();
    return files.length === 0
      ? 'what the study had'
      : files.map(({ file, sha256 }) => `${file} (SHA-256 ${sha256.slice(0, 16)} …)`).join(', ');
  });
  protected readonly questions = computed((): RoutineQuestion[] =>
    Object.entries(this.run().inputs).map(([name, files]) => ({
      name,
      kind: 'file',
      ask: `The same once more: ${files.map(({ file }) => file).join(', ')}`.slice(0, 200),
    })),
  );
  protected readonly lacks = computed(() =>
    this.questions().some(({ name }) => this.files()[name] === undefined),
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => this.running?.unsubscribe());
  }

  protected give(name: string, files: RoutineAnswer): void {
    this.problem.set(null);
    this.files.update((given) => ({ ...given, [name]: files as SentFile[] }));
  }

  protected verify(): void {
    const { study, id } = this.run();
    this.problem.set(null);
    this.isBusy.set(true);
    this.running = this.api.verifyRoutine({ study, routineRun: id }, { files: this.files() }).subscribe({
      next: (run) => {
        this.isBusy.set(false);
        this.checked.emit(run);
      },
      error: (error: Error) => {
        this.isBusy.set(false);
        this.problem.set(error.message);
      },
    });
  }

  protected stop(): void {
    this.running?.unsubscribe();
    this.isBusy.set(false);
  }

  protected words({ step, what, isSame, isUnchanged }: Check['parts'][number]): string {
    const again = isSame ? 'comes out again to the last byte' : 'comes out otherwise';
    const since =
      isUnchanged === null
        ? ', and is not in the study any more'
        : isUnchanged
          ? ''
          : '; what the study has was changed since';
    return `“${step}”, a ${what}, ${again}${since}.`;
  }
}
