import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { Routine, type KeptRoutine, type RoutineRun } from '@pebble/contract';
import { Api } from '../api/api';
import { asking } from '../shared/asking';
import { doneSteps } from '../shared/done-steps';
import { ForGood } from '../shared/for-good';
import { lastRead } from '../shared/last-read';
import { saveFile } from '../shared/save-file';
import { counted } from '../shared/words';
import { Notices } from '../store/notices';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { RoutineDrafts } from './routine-drafts';
import { RoutineEditor } from './routine-editor';
import { RoutineRunner } from './routine-runner';
import { RunCard } from './run-card';
import { StandingList } from './standing-list';
import { VariationTable } from './variation-table';

/** Steps that can be run again on other data: those that come with the application, one's own, and each time that they were run here. */
@Component({
  selector: 'pt-routines',
  imports: [
    ForGood,
    MatButton,
    RoutineEditor,
    RoutineRunner,
    RouterLink,
    RunCard,
    StandingList,
    VariationTable,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './routines.html',
  styleUrl: './routines.scss',
})
export class Routines {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  protected readonly drafts = inject(RoutineDrafts);
  protected readonly counted = counted;
  /** From the address: which routine is open. */
  readonly routine = input<string>();
  protected readonly study = this.store.selectSignal(work.selectStudy);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  protected readonly told = this.store.selectSignal(work.selectRoutinesTold);
  /** How often routines were kept, changed or forgotten here. */
  private readonly changes = signal(0);
  private readonly read = asking(
    () => ({ changes: this.changes() }),
    () => this.api.routines(),
  );
  protected readonly error = this.read.error;
  private readonly known = lastRead<readonly KeptRoutine[]>(() => 'all', this.read.found);
  protected readonly all = computed(() => this.known() ?? []);
  protected readonly chosen = computed(() => this.all().find(({ id }) => id === this.routine()) ?? null);
  private readonly runsRead = asking(
    () => {
      const study = this.study()?.id;
      return study ? { study, told: this.told(), done: doneSteps(this.steps()) } : null;
    },
    ({ study }) => this.api.routineRuns({ study }),
  );
  private readonly runsKnown = lastRead<readonly RoutineRun[]>(() => this.study()?.id, this.runsRead.found);
  /** The newest first. */
  private readonly runs = computed(() => this.runsKnown() ?? []);

  /** Those that were begun together in their order, every other one by itself. */
  protected readonly groups = computed(() => {
    const groups = new Map<number, RoutineRun[]>();
    for (const run of this.runs()) {
      const first = run.varied?.first ?? run.id;
      groups.set(first, [run, ...(groups.get(first) ?? [])]);
    }
    return [...groups.values()];
  });

  protected open(id: string): void {
    this.drafts.open.set(null);
    void this.router.navigate([], { queryParams: { routine: id } });
  }

  protected edit({ id, routine, isReady }: KeptRoutine, copy: boolean): void {
    const name = copy ? `${routine.name} (copy)`.slice(0, 120) : routine.name;
    this.drafts.open.set({
      routine: { ...routine, name, version: copy ? 1 : routine.version },
      left: [],
      id: copy || isReady ? null : id,
      along: 0,
    });
  }

  protected keep(kept: KeptRoutine): void {
    this.changes.update((count) => count + 1);
    this.open(kept.id);
    this.notices.say(`“${kept.routine.name}” is kept, for all studies.`);
  }

  protected forget({ id, routine }: KeptRoutine): void {
    this.api.forgetRoutine({ routine: id }).subscribe({
      next: () => {
        this.changes.update((count) => count + 1);
        this.notices.say(`“${routine.name}” is forgotten; what it made in studies stays.`);
      },
      error: (error: Error) => this.fail(error.message),
    });
  }

  protected save({ routine }: KeptRoutine): void {
    const bytes = new Blob([`${JSON.stringify(routine, null, 2)}\n`], { type: 'application/json' });
    saveFile(bytes, `${routine.name}.routine.json`);
  }

  /** A routine from a file is shown before it is kept. */
  protected async take(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    input.value = '';
    if (!file) return;
    try {
      const read = Routine.safeParse(JSON.parse(await file.text()));
      if (!read.success) {
        const [{ path, message }] = read.error.issues;
        return this.fail(`${file.name} is no routine (${path.join(', ') || 'the whole'}: ${message}).`);
      }
      this.drafts.open.set({ routine: read.data, left: [], id: null, along: 0 });
    } catch {
      this.fail(`${file.name} is no JSON, so there is no routine in it.`);
    }
  }

  private fail(message: string): void {
    this.store.dispatch(WorkActions.failed({ message }));
  }
}
