import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { CollectRun, RunCommand, RunState } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { map, timer } from 'rxjs';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { counted, timeHere } from '../shared/words';
import { WorkActions } from '../store/work.actions';

const STATES: Readonly<Record<RunState, string>> = {
  running: 'collecting',
  waiting: 'waiting for the budget',
  paused: 'paused',
  storing: 'taking in what came',
  done: 'done',
  cancelled: 'ended by hand',
  failed: 'stopped',
};
const WORKS: readonly RunState[] = ['running', 'waiting', 'storing'];

/** A collecting run: how far it is, what came, and how to pause, resume or end it. */
@Component({
  selector: 'pt-run-card',
  imports: [MatTooltip, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let r = run();
    <p class="head">
      <b>{{ r.name }}</b>
      <span class="state" [class.on]="works()">{{ states[r.state] }}</span>
      <span class="soft">{{ r.service.name }}</span>
      <span class="acts">
        @if (r.state === 'running' || r.state === 'waiting') {
          <button matButton="outlined" (click)="ask('pause')">Pause</button>
          <button matButton="outlined" matTooltip="What has come is kept" (click)="ask('cancel')">End here</button>
        }
        @if (r.state === 'paused' || r.state === 'failed') {
          <button matButton="filled" (click)="ask('resume')">Resume</button>
          <button matButton="outlined" matTooltip="What has come is kept" (click)="ask('cancel')">End here</button>
        }
        @if (r.state === 'done' || r.state === 'cancelled') {
          <button matButton="outlined" matTooltip="Asks the service again, for what is new only" (click)="ask('again')">
            Collect what is new
          </button>
        }
        @if (!works()) {
          <button matButton
            matTooltip="The run leaves this list; messages that were taken in stay"
            (click)="ask('forget')"
          >
            Forget
          </button>
        }
      </span>
    </p>
    @if (works()) {
      <div
        class="bar"
        role="progressbar"
        [attr.aria-label]="'How far ' + r.name + ' is'"
        [attr.aria-valuenow]="r.share === null ? null : (r.share * 100).toFixed(0)"
        aria-valuemin="0"
        aria-valuemax="100"
        [class.unknown]="r.share === null"
      >
        <i [style.width.%]="r.share === null ? 30 : r.share * 100"></i>
      </div>
    }
    <p class="num">
      {{ came() }}
      <span class="soft">{{ counted(r.counts.requests, 'request') }}{{ trouble() }}.</span>
      @if (r.state === 'waiting' && r.waitUntil !== null) {
        The service asks to wait until {{ timeHere(r.waitUntil) }} ({{ rest() }} s).
      }
    </p>
    @if (r.error) {
      <p class="error" role="alert">{{ r.error }}</p>
    }
    @if (!works() && r.notes.length) {
      <details>
        <summary>What the run has to say</summary>
        @for (note of r.notes; track $index) {
          <p>{{ note }}</p>
        }
      </details>
    }
    @if (problem(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-radius: 8px;
      padding: 8px 14px;
    }
    .head {
      display: flex;
      gap: 12px;
      align-items: center;
    }
    .acts {
      margin-left: auto;
      display: flex;
      gap: 6px;
      white-space: nowrap;
    }
    .state {
      border: 1px solid var(--line);
      border-radius: 20px;
      padding: 0 9px;
      font-size: 13px;
      white-space: nowrap;
    }
    .state.on {
      border-color: var(--thread);
      color: var(--thread);
    }
    .bar {
      height: 4px;
      background: var(--paper2);
      border-radius: 2px;
      margin: 6px 0;
      overflow: hidden;
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--thread);
      transition: width 0.3s;
    }
    .bar.unknown i {
      opacity: 0.5;
    }
    details {
      font-size: 13.5px;
    }
    summary {
      cursor: pointer;
      color: var(--tide);
    }
  `,
})
export class RunCard {
  readonly run = input.required<CollectRun>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  protected readonly states = STATES;
  protected readonly counted = counted;
  protected readonly timeHere = timeHere;
  protected readonly problem = signal<string | null>(null);
  protected readonly works = computed(() => WORKS.includes(this.run().state));
  private readonly now = toSignal(timer(0, 1000).pipe(map(() => Date.now())), { initialValue: 0 });
  protected readonly rest = computed(() =>
    Math.max(0, Math.ceil(((this.run().waitUntil ?? 0) - this.now()) / 1000)),
  );

  /** "312 messages, 4 items" */
  protected readonly came = computed(() => {
    const { messages, items, follows, profiles, deleted } = this.run().counts;
    const parts = [
      messages > 0 || items + follows + profiles === 0 ? counted(messages, 'message') : '',
      items > 0 ? counted(items, 'item') : '',
      follows > 0 ? counted(follows, 'follower') : '',
      profiles > 0 ? counted(profiles, 'profile') : '',
      deleted > 0 ? `${counted(deleted, 'post')} deleted since` : '',
    ];
    return `${parts.filter((part) => part !== '').join(', ')}.`;
  });

  /** ", 2 waits for the budget, 1 fault" */
  protected readonly trouble = computed(() => {
    const { limited, faults } = this.run().counts;
    const parts = [
      limited > 0 ? counted(limited, 'wait') + ' for the budget' : '',
      faults > 0 ? counted(faults, 'fault') + ' of the service' : '',
    ];
    return parts
      .filter((part) => part !== '')
      .map((part) => `, ${part}`)
      .join('');
  });

  protected ask(command: RunCommand): void {
    this.problem.set(null);
    this.api.commandRun({ study: this.run().study, run: this.run().id, command }).subscribe({
      next: (run) => {
        if (command === 'forget') {
          this.store.dispatch(WorkActions.runForgotten({ id: run.id }));
          this.notices.say(`The run “${run.name}” is forgotten; what it brought stays in the study.`);
        } else this.store.dispatch(WorkActions.runReported({ run }));
      },
      error: (error: Error) => this.problem.set(error.message),
    });
  }
}
