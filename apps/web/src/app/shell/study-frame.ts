import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  type OnDestroy,
} from '@angular/core';
import { RouterLink, RouterOutlet } from '@angular/router';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { Store } from '@ngrx/store';
import { counted, duration } from '../shared/words';
import { SearchDialog } from '../search/search-dialog';
import { ThemeChoice } from '../shared/theme';
import { networkToOpen } from '../shared/slices';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';
import { NothingHere } from './nothing-here';
import { Rail, type Stop } from './rail';

/** The frame of an open study: rail, head line, what is running, and the screen of the stop. */
@Component({
  selector: 'pt-study-frame',
  imports: [MatButton, MatTooltip, RouterOutlet, RouterLink, Rail, MatProgressBar, NothingHere],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <pt-rail [study]="study()" [stops]="missing() ? [] : stops()" />
    <header>
      <span class="crumb" [matTooltip]="current()?.name">
        <a routerLink="/">Studies</a>
        /
        <b>{{ current()?.name ?? (missing() ? 'nothing' : '…') }}</b>
      </span>
      @if (running(); as step) {
        <div class="running" role="status">
          <span>
            {{ step.phase }}
            @if (step.remainingMs !== null) {
              <span class="faint">· about {{ duration(step.remainingMs) }} left</span>
            }
          </span>
          <mat-progress-bar
            [mode]="step.share === null ? 'indeterminate' : 'determinate'"
            [value]="(step.share ?? 0) * 100"
            aria-label="Progress"
          />
          <button matButton="outlined" (click)="cancel(step.step)">Cancel</button>
        </div>
      }
      <button matButton class="search" matTooltip="Nodes, networks, studies, steps, messages (Ctrl K)" (click)="search.open()">
        Search
      </button>
      <button matButton (click)="theme.toggle()">
        {{ theme.night() ? 'Paper' : 'Night' }}
      </button>
    </header>
    @if (error(); as message) {
      <div class="error top" role="alert">
        {{ message }}
        <button matButton (click)="dismiss()">Close</button>
      </div>
    }
    <main>
      @if (missing(); as why) {
        <pt-nothing-here title="There is no study here" [why]="why">
          A link from elsewhere may lead to a study of another data folder; a study that was deleted can be
          taken back from <a routerLink="/">the list of studies</a> for some days.
        </pt-nothing-here>
      } @else if (!current() && !error()) {
        <div class="opening" role="status">
          <span>Opening the study …</span>
          <mat-progress-bar mode="indeterminate" aria-label="Opening" />
        </div>
      }
      @if (!missing()) {
        <router-outlet />
      }
    </main>
  `,
  styles: `
    :host {
      display: grid;
      grid-template: 48px auto 1fr / 92px 1fr;
      height: 100vh;
    }
    pt-rail {
      grid-row: 1 / 4;
    }
    header {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 0 18px;
      border-bottom: 1px solid var(--line);
      min-width: 0;
    }
    .crumb {
      color: var(--soft);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .crumb a {
      color: inherit;
    }
    .crumb b {
      color: var(--ink);
      font-weight: 600;
    }
    .running {
      display: grid;
      grid-template-columns: auto 160px auto;
      align-items: center;
      gap: 12px;
      margin-left: auto;
      white-space: nowrap;
    }
    .opening {
      display: grid;
      gap: 10px;
      width: 240px;
      margin: 20vh auto 0;
      color: var(--soft);
      text-align: center;
    }
    .search {
      margin-left: auto;
    }
    .running + .search {
      margin-left: 0;
    }
    .error.top {
      margin: 10px 18px 0;
      grid-column: 2;
      display: flex;
      justify-content: space-between;
      gap: 12px;
      max-width: none;
    }
    main {
      grid-column: 2;
      grid-row: 3;
      min-height: 0;
      min-width: 0;
    }
    @media (max-width: 700px) {
      :host {
        grid-template: 48px auto minmax(0, 1fr) auto / minmax(0, 1fr);
      }
      pt-rail {
        grid-row: 4;
      }
      main,
      .error.top {
        grid-column: 1;
      }
    }
  `,
})
export class StudyFrame implements OnDestroy {
  readonly study = input.required<string>();
  private readonly store = inject(Store);
  protected readonly theme = inject(ThemeChoice);
  protected readonly search = inject(SearchDialog);
  protected readonly current = this.store.selectSignal(work.selectStudy);
  protected readonly running = this.store.selectSignal(work.selectRunning);
  protected readonly error = this.store.selectSignal(work.selectError);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly open = this.store.selectSignal(work.selectOpenNetwork);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  protected readonly missing = this.store.selectSignal(work.selectMissing);
  protected readonly duration = duration;
  protected readonly stops = computed<readonly Stop[]>(() => {
    const study = this.current();
    return [
      {
        path: 'gather',
        name: 'Gather',
        note: study?.messages ? counted(study.messages, 'message') : 'no messages',
      },
      { path: 'tidy', name: 'Tidy', note: '' },
      { path: 'weave', name: 'Weave', note: study?.networks ? counted(study.networks, 'network') : '' },
      { path: 'map', name: 'Map', note: networkToOpen(this.networks(), this.open())?.name ?? '' },
      { path: 'read', name: 'Read', note: '' },
      { path: 'publish', name: 'Publish', note: '' },
      {
        path: 'logbook',
        name: 'Logbook',
        note: this.steps().length ? counted(this.steps().length, 'step') : '',
      },
    ];
  });

  constructor() {
    effect(() => this.store.dispatch(WorkActions.studyOpened({ id: this.study() })));
  }

  ngOnDestroy(): void {
    this.store.dispatch(WorkActions.studyLeft());
  }

  protected cancel(step: number): void {
    this.store.dispatch(WorkActions.cancelRequested({ step }));
  }

  protected dismiss(): void {
    this.store.dispatch(WorkActions.errorDismissed());
  }
}
