import type {
  Routine,
  RoutineAnswers,
  RoutineProblem,
  RoutineRun,
  StepKind,
  StepRequest,
  VariationRequest,
} from '@pebble/contract';
import { answerProblems, boundStep, referencesTo, restingOn, routineProblems } from '@pebble/core';
import { StepRefused } from '../errors/stepErrors';
import type { Runner } from '../runner/runner';
import { readMap } from '../storage/networks';
import type { Store } from '../storage/open';
import { notePace } from '../storage/paces';
import { beginRun, changeRun, findRun, interruptRuns, keptRun, type Stopped } from '../storage/routineRuns';
import type { StudyFolders } from '../storage/studyFolders';
import { countMessages, expectedSeconds } from './expected';
import { fingerprintOf, inputsOf, materialOf } from './fingerprint';
import { withReadings } from './readFiles';

/** A routine or an answer that does not fit; each with its place. */
export class RoutineRefused extends Error {
  constructor(readonly problems: readonly RoutineProblem[]) {
    super(problems.map(({ where, what }) => `${where}: ${what}`).join(' '));
  }
}

/** What is not right with a routine and its answers in a study, answers with how their files are read. */
export async function checkedRun(
  store: Store,
  runner: Runner,
  routine: Routine,
  answers: RoutineAnswers,
): Promise<{ readonly answers: RoutineAnswers; readonly problems: readonly RoutineProblem[] }> {
  const problems = routineProblems(routine);
  if (problems.length > 0) return { answers, problems };
  const read = await withReadings(store, runner, answers);
  return { answers: read, problems: answerProblems(routine, read) };
}

/** A run that is going on. */
interface Going {
  readonly stop: AbortController;
  /** The step that it does just now. */
  step: number | null;
}

const aborted = (signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    if (signal.aborted) resolve();
    else signal.addEventListener('abort', () => resolve(), { once: true });
  });

/**
 * Runs routines: each step in its turn as a step of the study, and what follows it by itself before the next. What was done stands in the
 * logbook with the run for which it was done, so that a run that was stopped, or killed, goes on without doing anything twice.
 */
export class RoutineRuns {
  /** By study and number. */
  private readonly going = new Map<string, Going & { ended: Promise<void> }>();
  private closing = false;

  constructor(
    private readonly studies: StudyFolders,
    private readonly runner: Runner,
    /** Throws where a step names something that is not of its study, as a file outside of it. */
    private readonly check: (store: Store, kind: StepKind, parameters: object) => void,
  ) {}

  /** Says of runs that a kill ended that it did. */
  async settle(): Promise<void> {
    for (const store of this.studies) await interruptRuns(store);
  }

  /**
   * Begins a run, which goes on by itself. Throws RoutineRefused.
   * @param standing the standing routine that begins it, if one does
   */
  async begin(
    study: string,
    routine: Routine,
    given: RoutineAnswers,
    standing: number | null = null,
  ): Promise<RoutineRun> {
    const store = this.storeOf(study);
    const { answers, problems } = await checkedRun(store, this.runner, routine, given);
    if (problems.length > 0) throw new RoutineRefused(problems);
    const id = await beginRun(store, {
      routine,
      answers,
      standing,
      ...(await known(store, routine, answers)),
    });
    return this.start(study, id);
  }

  /** Runs a routine for each of several answers to a question, one after the other. Throws RoutineRefused. */
  async vary(
    study: string,
    { routine, answers: given, question, values }: VariationRequest,
  ): Promise<RoutineRun[]> {
    const store = this.storeOf(study);
    if (!routine.questions.some(({ name, kind }) => name === question && kind !== 'file'))
      throw new RoutineRefused([
        { where: question, what: 'No question of this name has values to be tried.' },
      ]);
    const { answers, problems } = await checkedRun(store, this.runner, routine, given);
    const all = values.map((value) => ({ ...answers, [question]: value }));
    const found = [...problems, ...all.flatMap((one) => answerProblems(routine, one))];
    if (found.length > 0) throw new RoutineRefused(found);
    const ids: number[] = [];
    for (const [i, one] of all.entries()) {
      const varied = { question, value: values[i], first: ids[0] ?? 0 };
      // Files of the first run are used up when others begin.
      const begun = {
        routine,
        answers: one,
        varied,
        state: 'waiting',
        ...(await known(store, routine, one)),
      } as const;
      ids.push(await beginRun(store, begun));
    }
    void this.oneAfterTheOther(study, ids);
    return Promise.all(ids.map((id) => this.read(study, id)));
  }

  private async oneAfterTheOther(study: string, ids: readonly number[]): Promise<void> {
    for (const id of ids) {
      if (this.closing || this.studies.storeOf(study) === null) return;
      if ((await this.read(study, id)).state !== 'waiting') continue;
      await this.start(study, id);
      await this.ended(study, id);
    }
  }

  /** Goes on with a run that ended before all was done; null where there is nothing to do. */
  async goOn(study: string, id: number): Promise<RoutineRun | null> {
    const run = await findRun(this.storeOf(study), id);
    if (!run || ['waiting', 'running', 'done'].includes(run.state)) return null;
    return this.start(study, id);
  }

  /** Asks a run to stop; what it does just now is stopped too. Whether it was running. */
  async cancel(study: string, id: number): Promise<boolean> {
    const going = this.going.get(`${study} ${id}`);
    if (!going) {
      if ((await this.read(study, id)).state !== 'waiting') return false;
      await changeRun(this.storeOf(study), id, { state: 'cancelled' });
      return true;
    }
    going.stop.abort();
    if (going.step !== null) this.runner.cancel(study, going.step);
    return true;
  }

  /** Waits until a run has ended. */
  async ended(study: string, id: number): Promise<RoutineRun> {
    await this.going.get(`${study} ${id}`)?.ended;
    return this.read(study, id);
  }

  async close(): Promise<void> {
    this.closing = true;
    await Promise.all([...this.going.values()].map(({ ended }) => ended));
  }

  private async start(study: string, id: number): Promise<RoutineRun> {
    const key = `${study} ${id}`;
    // Whoever asked at the same time gets the same run.
    if (this.going.has(key)) return this.read(study, id);
    const going = { stop: new AbortController(), step: null, ended: Promise.resolve() };
    this.going.set(key, going);
    await changeRun(this.storeOf(study), id, { state: 'running', stopped: {} });
    going.ended = this.work(study, id, going)
      .catch((error: unknown) => {
        if (!this.closing) process.emitWarning(error instanceof Error ? error : String(error));
      })
      .finally(() => {
        this.going.delete(key);
        this.runner.tell(study, { type: 'routine', run: id });
      });
    return this.read(study, id);
  }

  private async work(study: string, id: number, going: Going): Promise<void> {
    const store = this.storeOf(study);
    const { routine, answers, varied } = (await keptRun(store, id))!;
    const own = varied ? restingOn(routine, varied.question) : null;
    const stopped: Record<string, Stopped[string]> = {};
    const undone = new Set<string>();
    for (const step of routine.steps) {
      const { made, done } = await this.sofar(store, id);
      if (done.has(step.name)) continue;
      const stop = (state: 'failed' | 'left out', why: string): void => {
        undone.add(step.name);
        stopped[step.name] = { state, why };
      };
      if (this.closing || going.stop.signal.aborted) {
        undone.add(step.name);
        continue;
      }
      const missing = referencesTo(step).find((name) => undone.has(name));
      if (missing !== undefined) {
        stop('left out', `It rests on “${missing}”, which was not done.`);
        continue;
      }
      const network = made[referencesTo(step)[0] ?? ''];
      const now = typeof network === 'string' ? await readMap(store, network) : {};
      const bound = boundStep(routine, step, answers, made, now);
      if ('problems' in bound) {
        stop('failed', new RoutineRefused(bound.problems).message);
        continue;
      }
      const request = own?.has(step.name) ? named(bound.request, varied!) : bound.request;
      try {
        this.check(store, request.kind, request.parameters);
      } catch (error) {
        stop('failed', (error as Error).message);
        continue;
      }
      const began = performance.now();
      const begun = (number: number): void => void (going.step = number);
      const part = { run: id, part: step.name, begun };
      const { step: ended } = await this.runner.submit(study, request, part);
      going.step = null;
      if (ended.state !== 'done') undone.add(step.name);
      // What follows goes on by itself where the run is stopped meanwhile.
      else {
        await Promise.race([this.runner.quiet(study), aborted(going.stop.signal)]);
        if (!going.stop.signal.aborted) await this.notePace(store, step.kind, performance.now() - began);
      }
      this.runner.tell(study, { type: 'routine', run: id });
    }
    const state = this.closing
      ? 'interrupted'
      : undone.size === 0
        ? 'done'
        : going.stop.signal.aborted
          ? 'cancelled'
          : 'incomplete';
    const results = state === 'done' ? await this.runner.read('runResults', study, id) : null;
    await changeRun(store, id, { state, stopped, results });
  }

  /** The next estimate goes by how long it took. */
  private async notePace(store: Store, kind: StepKind, milliseconds: number): Promise<void> {
    const expected = expectedSeconds(kind, await countMessages(store));
    await notePace(this.studies.catalogue, { kind, expected, seconds: milliseconds / 1000 });
  }

  /** What the steps of a run have made, and which of them are done. */
  private async sofar(store: Store, id: number) {
    const { made, steps } = (await findRun(store, id))!;
    const done = new Set(steps.filter(({ state }) => state === 'done').map(({ name }) => name));
    return { made, done };
  }

  private async read(study: string, id: number): Promise<RoutineRun> {
    return (await findRun(this.storeOf(study), id))!;
  }

  private storeOf(study: string): Store {
    const store = this.studies.storeOf(study);
    if (!store) throw new StepRefused('This study is not there any more.');
    return store;
  }
}

/** What is known of a run before it begins, so that it can be made again. */
async function known(store: Store, routine: Routine, answers: RoutineAnswers) {
  const [inputs, material] = [await inputsOf(store, answers), await materialOf(store)];
  return { inputs, material, fingerprint: fingerprintOf(routine, answers, { inputs, material }) };
}

/** What a step of one of several runs makes is called by the answer that was tried. */
function named(request: StepRequest, { question, value }: NonNullable<RoutineRun['varied']>): StepRequest {
  if (request.kind !== 'weave' && request.kind !== 'weave-slices' && request.kind !== 'keep-plate')
    return request;
  const field = request.kind === 'keep-plate' ? 'title' : 'name';
  const tried =
    ` (${question} ${Array.isArray(value) ? value.join(', ') || 'none' : String(value ?? 'none')})`.slice(
      0,
      60,
    );
  const own = String(request.parameters[field]).slice(0, 100 - tried.length);
  return { ...request, parameters: { ...request.parameters, [field]: `${own}${tried}` } };
}
