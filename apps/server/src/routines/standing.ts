import type {
  CollectRun,
  NewStandingRoutine,
  RunCommand,
  StandingRoutine,
  StepEvent,
  StepKind,
} from '@pebble/contract';
import { counted } from '@pebble/core';
import type { Runner } from '../runner/runner';
import type { Store } from '../storage/open';
import { findRun } from '../storage/routineRuns';
import {
  cameAfter,
  changeStanding,
  findStanding,
  forgetStanding,
  keepStanding,
  lastStep,
  listStanding,
  stateOfCollecting,
  type KeptStanding,
} from '../storage/standingRoutines';
import type { StudyFolders } from '../storage/studyFolders';
import { nextTurn } from './nextTurn';
import { checkedRun, RoutineRefused, type RoutineRuns } from './runs';

/** Milliseconds between two looks at the clock. */
const LOOK = 15_000;

/** Gives a command to a collecting run; null where there is no such run. */
type CommandRun = (study: string, run: string, command: RunCommand) => Promise<CollectRun | null>;

/**
 * Routines that run by themselves. Whether one is due stands in the study: by the newest step of which it knows, or the moment of its next
 * turn. So a turn that came while the application was closed, or was killed, is made up for once when it is started again.
 */
export class StandingRoutines {
  /** Studies at whose routines one looks just now, and whether something came meanwhile. */
  private readonly looking = new Map<string, { again: boolean; ended: Promise<void> }>();
  /** The next turn by the clock of each study that has one, milliseconds since 1970: no other study is opened for it. */
  private readonly turns = new Map<string, number>();
  private timer: NodeJS.Timeout | undefined;
  private deafen: () => void = () => undefined;
  private closing = false;

  constructor(
    private readonly studies: StudyFolders,
    private readonly runner: Runner,
    private readonly runs: RoutineRuns,
    private readonly command: CommandRun,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /** Begins to listen, makes up for what was missed, and goes on with runs that a stop of the application ended. */
  async start(): Promise<void> {
    this.deafen = this.runner.listenToAll((study, event) => {
      if (isCause(event)) this.look(study);
    });
    this.timer = setInterval(() => this.lookAtClock(), LOOK).unref();
    for (const store of this.studies) {
      const all = await listStanding(store);
      for (const { lastRun } of all)
        if (lastRun !== null && (await findRun(store, lastRun))?.state === 'interrupted')
          await this.runs.goOn(store.study, lastRun);
      if (all.length > 0) this.look(store.study);
    }
  }

  /** Throws RoutineRefused. */
  async begin(study: string, wanted: NewStandingRoutine): Promise<StandingRoutine> {
    const store = this.storeOf(study)!;
    const files = wanted.routine.questions.filter(({ kind }) => kind === 'file');
    if (files.length > 0)
      throw new RoutineRefused([
        {
          where: files[0].name,
          what: `It asks for ${counted(files.length, 'file')} each time. By itself a routine runs on what the study has.`,
        },
      ]);
    const { answers, problems } = await checkedRun(store, this.runner, wanted.routine, wanted.answers);
    if (problems.length > 0) throw new RoutineRefused(problems);
    const { when } = wanted;
    if (
      when.on === 'time' &&
      when.collect !== null &&
      (await stateOfCollecting(store, when.collect)) === null
    )
      throw new RoutineRefused([{ where: 'collect', what: 'There is no such collecting run.' }]);
    const kept = await keepStanding(store, { ...wanted, answers }, nextTurn(when, this.now()));
    await this.remember(store);
    return kept;
  }

  /** Lets one rest, or go on: what came meanwhile is not made up for. Null where there is none. */
  async switch(study: string, id: number, isOn: boolean): Promise<StandingRoutine | null> {
    const store = this.storeOf(study);
    const standing = store && (await findStanding(store, id));
    if (!standing) return null;
    const seenStep = await lastStep(store);
    const next = isOn ? nextTurn(standing.when, this.now()) : null;
    await changeStanding(store, id, { isOn, seenStep, next, waitsFor: null, note: null });
    await this.remember(store);
    return findStanding(store, id);
  }

  /** Whether there was one. */
  async end(study: string, id: number): Promise<boolean> {
    const store = this.storeOf(study);
    if (!store || !(await forgetStanding(store, id))) return false;
    await this.remember(store);
    return true;
  }

  /** Waits until nothing is looked at any more. */
  async settled(): Promise<void> {
    while (this.looking.size > 0) await Promise.all([...this.looking.values()].map(({ ended }) => ended));
  }

  async close(): Promise<void> {
    this.closing = true;
    clearInterval(this.timer);
    this.deafen();
    await this.settled();
  }

  /** Looks at the routines whose turn by the clock has come. */
  lookAtClock(): void {
    const now = this.now().getTime();
    for (const [study, turn] of this.turns) if (turn <= now) this.look(study);
  }

  /** Writes down when the next turn by the clock is. */
  private async remember(store: Store): Promise<void> {
    const turns = (await listStanding(store)).flatMap(({ next }) =>
      next === null ? [] : [Date.parse(next)],
    );
    if (turns.length === 0) this.turns.delete(store.study);
    else this.turns.set(store.study, Math.min(...turns));
  }

  private look(study: string): void {
    const looking = this.looking.get(study);
    if (looking) {
      looking.again = true;
      return;
    }
    const mine = { again: true, ended: Promise.resolve() };
    this.looking.set(study, mine);
    mine.ended = this.lookUntilDone(study, mine)
      .catch((error: unknown) => {
        if (!this.closing) process.emitWarning(error instanceof Error ? error : String(error));
      })
      .finally(() => this.looking.delete(study));
  }

  private async lookUntilDone(study: string, mine: { again: boolean }): Promise<void> {
    while (mine.again && !this.closing) {
      mine.again = false;
      const store = this.storeOf(study);
      if (!store) return void this.turns.delete(study);
      // The one that was begun first runs first.
      for (const standing of (await listStanding(store)).reverse())
        if (standing.isOn && !this.closing) await this.turn(store, standing);
      await this.remember(store);
    }
  }

  /** Runs one where it is due. */
  private async turn(store: Store, standing: KeptStanding): Promise<void> {
    const { when, waitsFor } = standing;
    if (when.on !== 'time') {
      const kind = when.on === 'import' ? 'import-source' : 'collect-source';
      if (await cameAfter(store, standing.seenStep, kind)) await this.run(store, standing);
      return;
    }
    if (waitsFor !== null) await this.afterCollecting(store, standing, waitsFor);
    if (standing.next === null || Date.parse(standing.next) > this.now().getTime()) return;
    await this.change(store, standing, { next: nextTurn(when, this.now()) });
    if (when.collect === null) return this.run(store, standing);
    await this.collect(store, standing, waitsFor ?? when.collect, waitsFor === null ? 'again' : 'resume');
  }

  /** Collects anew what is to be there first, or goes on with what was paused. */
  private async collect(
    store: Store,
    standing: KeptStanding,
    run: string,
    command: 'again' | 'resume',
  ): Promise<void> {
    try {
      const begun = await this.command(store.study, run, command);
      await this.change(store, standing, {
        waitsFor: begun?.id ?? null,
        note: begun ? null : 'The collecting run that was to be done anew is not there any more.',
      });
    } catch (error) {
      await this.change(store, standing, { note: `Nothing could be collected. ${(error as Error).message}` });
    }
  }

  private async afterCollecting(store: Store, standing: KeptStanding, waitsFor: string): Promise<void> {
    const state = await stateOfCollecting(store, waitsFor);
    const note =
      state === 'paused' || state === 'failed'
        ? 'The collecting run before it stopped; it is gone on with at the next turn, or resume it on Gather.'
        : null;
    if (note !== standing.note) await this.change(store, standing, { note });
    if (state === null) return this.change(store, standing, { waitsFor: null });
    if (state !== 'done' && state !== 'cancelled') return;
    // The next time it asks for what is newer than this.
    const when = { ...standing.when, collect: waitsFor } as typeof standing.when;
    await this.change(store, standing, { waitsFor: null, when });
    await this.run(store, standing);
  }

  private async run(store: Store, standing: KeptStanding): Promise<void> {
    const { study } = store;
    await this.runner.quiet(study);
    if (this.closing || !(await findStanding(store, standing.id))?.isOn) return;
    const seenStep = await lastStep(store);
    try {
      const { id } = await this.runs.begin(study, standing.routine, standing.answers, standing.id);
      await this.change(store, standing, { seenStep, lastRun: id, note: null });
      await this.runs.ended(study, id);
    } catch (error) {
      if (!(error instanceof RoutineRefused)) throw error;
      await this.change(store, standing, { seenStep, note: `It could not run. ${error.message}` });
    }
  }

  private async change(
    store: Store,
    { id, lastRun }: KeptStanding,
    change: Parameters<typeof changeStanding>[2],
  ): Promise<void> {
    await changeStanding(store, id, change);
    this.runner.tell(store.study, { type: 'routine', run: change.lastRun ?? lastRun ?? 0 });
  }

  private storeOf(study: string): Store | null {
    return this.studies.storeOf(study);
  }
}

/** Steps after which one looks: a study that was taken back has its turns again. */
const CAUSES: ReadonlySet<StepKind> = new Set(['import-source', 'collect-source', 'restore-study']);

/** Whether something after which a routine may run has ended. */
function isCause(event: StepEvent): boolean {
  if (event.type === 'collecting')
    return event.run.state !== 'running' && event.run.state !== 'waiting' && event.run.state !== 'storing';
  return event.type === 'step' && event.step.state === 'done' && CAUSES.has(event.step.kind);
}
