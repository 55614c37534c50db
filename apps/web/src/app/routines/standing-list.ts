import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Store } from '@ngrx/store';
import type { StandingRoutine } from '@pebble/contract';
import type { Observable } from 'rxjs';
import { Api } from '../api/api';
import { everyPage } from '../api/every-page';
import { asking } from '../shared/asking';
import { ForGood } from '../shared/for-good';
import { lastRead } from '../shared/last-read';
import { Notices } from '../store/notices';
import { WorkActions } from '../store/work.actions';
import { standingWords } from './standing-words';

/** Routines that run by themselves in a study: when, and what came of their last turn. */
@Component({
  selector: 'pt-standing-list',
  imports: [ForGood, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (read.error(); as why) {
      <p class="error" role="alert">{{ why }}</p>
    }
    @if (all().length > 0) {
      <h2>Running by themselves</h2>
      <ul>
        @for (one of all(); track one.id) {
          <li>
            <p>
              <b>{{ one.routine.name }}</b> runs {{ words(one) }}{{ one.isOn ? '.' : ', but rests now.' }}
            </p>
            <p class="faint">{{ state(one) }}</p>
            @if (one.note; as note) {
              <p class="error">{{ note }}</p>
            }
            <p class="row">
              <button matButton [attr.aria-label]="act(one) + ': ' + one.routine.name" (click)="switch(one)">
                {{ act(one) }}
              </button>
              <pt-for-good
                act="End"
                [label]="'End ' + one.routine.name"
                [question]="'End it? Its runs and what they made stay.'"
                (confirmed)="end(one)"
              />
            </p>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      max-width: 760px;
    }
    li {
      border-top: 1px solid var(--line);
      padding: 10px 0;
      overflow-wrap: anywhere;
    }
    p {
      margin: 3px 0;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px;
      margin-left: -12px;
    }
  `,
})
export class StandingList {
  readonly study = input.required<string>();
  /** Changes when something was told of routines. */
  readonly told = input.required<number>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly changes = signal(0);
  protected readonly read = asking(
    () => ({ study: this.study(), told: this.told(), changes: this.changes() }),
    ({ study }) => this.api.standingRoutines({ study }),
  );
  private readonly known = lastRead<readonly StandingRoutine[]>(this.study, this.read.found);
  protected readonly all = computed(() => this.known() ?? []);
  /** Names of collecting runs, read where one is spoken of. */
  private readonly names = asking(
    () => (this.all().some(({ when }) => when.on === 'time' && when.collect !== null) ? this.study() : null),
    (study) => everyPage('runs', (page) => this.api.runs({ study }, page)),
  );

  protected words({ when }: StandingRoutine): string {
    const run = when.on === 'time' ? when.collect : null;
    return standingWords(when, this.names.found()?.find(({ id }) => id === run)?.name ?? null);
  }

  protected state({ next, waitsFor, lastRun, isOn }: StandingRoutine): string {
    const turn = next === null || !isOn ? [] : [`Next: ${inOwnZone(next)}.`];
    const waits = waitsFor === null ? [] : ['It waits until all is collected.'];
    return [...turn, ...waits, lastRun === null ? 'It has not run yet.' : `Last: run ${lastRun}.`].join(' ');
  }

  protected act({ isOn }: StandingRoutine): string {
    return isOn ? 'Let it rest' : 'Let it go on';
  }

  protected switch({ id, isOn }: StandingRoutine): void {
    this.ask(this.api.changeStanding({ study: this.study(), standing: id }, { isOn: !isOn }));
  }

  protected end({ id, routine }: StandingRoutine): void {
    this.ask(this.api.endStanding({ study: this.study(), standing: id }), () =>
      this.notices.say(`“${routine.name}” does not run by itself any more; what its runs made stays.`),
    );
  }

  private ask(asked: Observable<unknown>, done: () => void = () => undefined): void {
    asked.subscribe({
      next: () => {
        this.changes.update((count) => count + 1);
        done();
      },
      error: (error: Error) => this.store.dispatch(WorkActions.failed({ message: error.message })),
    });
  }
}

/** A moment by the clock of whoever reads it, as the routine was set. */
function inOwnZone(moment: string): string {
  return new Date(moment).toLocaleString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    hour: '2-digit',
    minute: '2-digit',
  });
}
