import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import type { RoutineRun, RunStep } from '@pebble/contract';
import type { Observable } from 'rxjs';
import { Api } from '../api/api';
import { Busy } from '../shared/busy';
import { instant } from '../shared/words';
import { WorkActions } from '../store/work.actions';
import { RunCheck } from './run-check';
import { RunDifferences } from './run-differences';
import { RunFiles } from './run-files';
import { RUN_STATES } from './run-states';

/** One time that a routine was run: how far it is, what became of each step, and where its results are. */
@Component({
  selector: 'pt-routine-run',
  imports: [Busy, MatButton, MatProgressBar, RouterLink, RunCheck, RunDifferences, RunFiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ run().routine.name }}</h3>
    <p class="faint">
      run {{ run().id }}{{ varied() }}{{ run().standing === null ? '' : ', by itself' }} · {{ instant(run().startedAt) }} · {{ state() }} · {{ done() }} of {{ run().steps.length }} steps
    </p>
    @if (run().state === 'running') {
      <mat-progress-bar mode="determinate" [value]="(100 * done()) / run().steps.length" aria-label="Steps done" />
    }
    <ol>
      @for (step of run().steps; track step.name) {
        <li [class.wrong]="step.error !== null">
          @if (step.state === 'done') {
            {{ step.sentence }}
          } @else {
            <b>{{ step.name }}</b>: {{ step.state }}. {{ step.error }}
          }
        </li>
      }
    </ol>
    <p class="row">
      @if (run().state === 'running' || run().state === 'waiting') {
        <button matButton="outlined" [ptBusy]="busy()" (click)="stop()">Stop</button>
      } @else if (run().state !== 'done') {
        <button matButton="outlined" [ptBusy]="busy()" (click)="goOn()">Go on</button>
        <span class="faint">What is done is not done again.</span>
      }
      @for (one of networks(); track one.id) {
        <a matButton [routerLink]="['/studies', run().study, 'map', one.id]">Map of {{ one.name }}</a>
      }
      @if (hasPlate()) {
        <a matButton [routerLink]="['/studies', run().study, 'publish']">Plates on Publish</a>
      }
    </p>
    @if (hasFiles()) {
      <pt-run-files [run]="run()" />
    }
    @if (run().state === 'done') {
      <details (toggle)="isCompared.set($any($event.target).open)">
        <summary>What differs from the run before</summary>
        @if (isCompared()) {
          <pt-run-differences [run]="run()" />
        }
      </details>
    }
    @if (run().results !== null) {
      <details>
        <summary>{{ run().verified ? 'Made again' : 'Verify' }}</summary>
        <pt-run-check [run]="run()" (checked)="told($event)" />
      </details>
    }
    @if (run().fingerprint; as print) {
      <p class="faint print" title="Of the routine, its answers, the bytes of its files, the material before, and the version: the same one gives the same results.">
        Fingerprint {{ print.slice(0, 16) }}
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      border-top: 1px solid var(--line);
      padding: 14px 0;
      max-width: 760px;
    }
    ol {
      margin: 8px 0;
      padding-left: 22px;
      font: 15px/1.45 var(--serif);
      overflow-wrap: anywhere;
    }
    .wrong {
      color: var(--danger);
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
    }
    details {
      margin-top: 8px;
    }
    summary {
      cursor: pointer;
      color: var(--tide);
      width: max-content;
    }
    p {
      margin: 4px 0;
      overflow-wrap: anywhere;
    }
  `,
})
export class RunCard {
  readonly run = input.required<RoutineRun>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly busy = signal(false);
  /** Whether it is asked what differs: comparing takes a moment. */
  protected readonly isCompared = signal(false);
  protected readonly instant = instant;
  protected readonly state = computed(() => RUN_STATES[this.run().state]);
  protected readonly done = computed(() => this.run().steps.filter(({ state }) => state === 'done').length);
  /** Which answer was tried, where several were. */
  protected readonly varied = computed(() => {
    const { varied } = this.run();
    return varied ? `, ${varied.question} ${String(varied.value ?? 'none')}` : '';
  });
  /** Networks that are there, each with the name that its step gave it. */
  protected readonly networks = computed(() => {
    const { steps, made, routine } = this.run();
    return steps.flatMap(({ name }: RunStep) => {
      const id = made[name];
      const title = routine.steps.find((one) => one.name === name)?.parameters['name'];
      return typeof id === 'string' ? [{ id, name: typeof title === 'string' ? `“${title}”` : name }] : [];
    });
  });
  protected readonly hasPlate = computed(() =>
    this.run().steps.some(({ kind, state }) => kind === 'keep-plate' && state === 'done'),
  );

  protected readonly hasFiles = computed(() => {
    const { routine, made, state } = this.run();
    const hasEnded = state !== 'running' && state !== 'waiting';
    return hasEnded && routine.outputs.some(({ of }) => made[of] !== undefined);
  });

  protected told({ id }: RoutineRun): void {
    this.store.dispatch(WorkActions.routineReported({ run: id }));
  }

  protected stop(): void {
    this.ask(this.api.cancelRoutine(this.place()));
  }

  protected goOn(): void {
    this.ask(this.api.goOnRoutine(this.place()));
  }

  private place(): { study: string; routineRun: number } {
    const { study, id } = this.run();
    return { study, routineRun: id };
  }

  private ask(asked: Observable<RoutineRun>): void {
    this.busy.set(true);
    asked.subscribe({
      next: (run) => {
        this.busy.set(false);
        this.told(run);
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.store.dispatch(WorkActions.failed({ message: error.message }));
      },
    });
  }
}
