import { EventEmitter } from 'node:events';
import { availableParallelism } from 'node:os';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import pLimit from 'p-limit';
import { pino, type Logger } from 'pino';
import { Piscina } from 'piscina';
import {
  stepParameters,
  type Preview,
  type ImportMapping,
  type Step,
  type StepEvent,
  type StepKind,
  type StepProgress,
  type StepRequest,
  type UploadAnswer,
} from '@pebble/contract';
import { counted, QueryError } from '@pebble/core';
import { UnreadableFile } from '@pebble/core/files';
import type { Config } from '../config';
import type { Store } from '../storage/open';
import type { StudyFolders } from '../storage/studyFolders';
import { countBeginning, forgetFollowUp, leftFollowUps, type FollowUp } from '../storage/followUps';
import { beginStep, endStep, findStep, type RunPart } from '../storage/steps';
import { readCard } from '../storage/studies';
import { Damaged } from '../files/damage';
import { faultOf } from '../files/log';
import { placeFiles } from '../storage/files/stagedFiles';
import { stepDefinition } from '../operations';
import { StepCancelled } from '../errors/stepErrors';
import { unexpected, type Outcome, type Prepared, type Task } from './execute';
import { ahead, makeGate } from '../threads/gate';
import { CANCELLED, CLOSING } from './ending';
import type { ReadName, Reads } from './reads';
import type { ReadAnswer } from './worker';

/** What the program of the threads can be asked for: it is called by its name. */
type WorkerTask = keyof typeof import('./worker');

interface Running {
  readonly step: number;
  readonly study: string;
  readonly cancel: Int32Array;
  /** Ends the thread of a step that does not stop by itself. */
  readonly abort: AbortController;
  last: StepProgress;
}

/** What events of all studies are sent by. */
const EVERY_STUDY = Symbol('every study');

type PlainTask = Omit<Task, 'threads' | 'gate'>;

/** Milliseconds that a step has to stop by itself when it is cancelled, and a reading that nobody waits for any more. */
const PATIENCE = 700;

/** Bytes of a file that are looked at in a millisecond at least, where it has to be read whole. */
const LOOKED_AT = 5000;

/** A finished step with what went wrong, if anything did. */
interface Finished {
  readonly step: Step;
  readonly place: Outcome['place'];
}

/** Why a step is done where nobody asked for it alone: it follows another one, or is a part of a run. */
interface Why {
  readonly followUp?: number | undefined;
  readonly of?: BegunPart | undefined;
}

/** A part of a run, which is told the number of its step when that begins. */
interface BegunPart extends RunPart {
  readonly begun?: (step: number) => void;
}

/** The steps of one study that wait for each other. */
interface Queue {
  last: Promise<unknown>;
  /** The last of those steps that prepare something. */
  lastBeside: Promise<unknown>;
}

/**
 * Runs the steps of a study one after the other in worker threads: a step waits until the one before it is done. Those of different studies
 * run side by side, as many as there are cores. What a step only reads and computes it prepares beside the others of its study, one after
 * the other too and pausing while people wait for something else, and then waits for its turn. Progress and ends are sent to listeners.
 */
export class Runner {
  private readonly pool: Piscina;
  private readonly events = new EventEmitter().setMaxListeners(0);
  private readonly queues = new Map<string, Queue>();
  /** How many steps run at once, over all studies. */
  private readonly cores = pLimit(Math.max(2, availableParallelism()));
  /** How many are prepared at once, over all studies. */
  private readonly beside = pLimit(1);
  /** By study and number of the step. */
  private readonly running = new Map<string, Running>();
  /** What follows and was taken in hand already. */
  private readonly followed = new Set<string>();
  private readonly gate = makeGate();
  private closing = false;

  constructor(
    private readonly studies: StudyFolders,
    workerFile: string,
    private readonly limits: Pick<Config, 'mostRows' | 'longestLook'>,
    /** Threads that are started at once: starting one takes a second. */
    warm = 1,
    private readonly log: Logger = pino({ level: 'silent' }),
  ) {
    this.pool = new Piscina({
      filename: workerFile,
      minThreads: warm,
      // A step and what it leaves to do keep no reader waiting: these wait for a core, not for a thread.
      maxThreads: Math.max(2, availableParallelism()) + 2,
      idleTimeout: 60_000,
    });
    // A thread that breaks down without a task is replaced; without a listener it would end the application.
    this.pool.on('error', (error: Error) => process.emitWarning(error));
  }

  /** Waits until a thread can read: starting one takes a second or more, and whoever asks first would wait for it. */
  async ready(): Promise<void> {
    await this.pool.run(undefined, { name: 'ready' satisfies WorkerTask });
  }

  /** Runs a step and, once it is done, what follows it. Resolves when the step itself has ended. Throws ZodError on bad parameters. */
  submit(study: string, request: StepRequest, of?: BegunPart): Promise<Finished> {
    return this.inItsTurn(study, request, { of });
  }

  /** Waits until nothing of a study runs or waits any more, what follows steps by itself included. */
  async quiet(study: string): Promise<void> {
    const queue = this.queueOf(study);
    for (;;) {
      const { last, lastBeside } = queue;
      await Promise.all([last, lastBeside]);
      // What follows is put into its turn once the step before it has ended.
      await new Promise((resolve) => setImmediate(resolve));
      if (queue.last === last && queue.lastBeside === lastBeside) return;
    }
  }

  /** Runs what was to follow when the application was ended. */
  async resume(): Promise<void> {
    for (const store of this.studies)
      for (const left of await leftFollowUps(store))
        if (!this.followed.has(`${store.study} ${left.id}`)) void this.follow(store.study, left);
  }

  /** What follows by itself ends with its reason in the logbook; nobody waits for it. */
  private follow(study: string, { id, request }: FollowUp): Promise<unknown> {
    this.followed.add(`${study} ${id}`);
    return this.inItsTurn(study, request, { followUp: id }).catch((error: unknown) => {
      if (!this.closing) process.emitWarning(error instanceof Error ? error : String(error));
    });
  }

  private async inItsTurn(study: string, request: StepRequest, why: Why): Promise<Finished> {
    const parameters = stepParameters[request.kind].parse(request.parameters);
    const queue = this.queueOf(study);
    const isBeside = stepDefinition(request.kind).prepare !== undefined;
    const turn = (isBeside ? queue.lastBeside : queue.last).then(() => {
      if (this.closing) throw new Error('The application is being closed.');
      return this.runOne(study, request.kind, parameters, why);
    });
    if (isBeside) queue.lastBeside = turn.catch(() => undefined);
    else queue.last = turn.catch(() => undefined);
    void turn
      .then(({ outcome }) => Promise.all(outcome.followUps.map((next) => this.follow(study, next))))
      .catch(() => undefined);
    const { step, outcome } = await turn;
    return { step, place: outcome.place };
  }

  private queueOf(study: string): Queue {
    let queue = this.queues.get(study);
    if (!queue) this.queues.set(study, (queue = { last: Promise.resolve(), lastBeside: Promise.resolve() }));
    return queue;
  }

  /** Does something with the whole of a study once all its steps have ended; no other begins meanwhile. */
  async alone<T>(study: string, work: () => Promise<T>): Promise<T> {
    const queue = this.queueOf(study);
    // What is prepared has to come to its own turn first.
    const turn = queue.lastBeside.then(() => {
      const own = queue.last.then(work);
      queue.last = own.catch(() => undefined);
      return own;
    });
    queue.lastBeside = turn.catch(() => undefined);
    return turn;
  }

  /** Asks a running step of a study to stop; false when there is none. */
  cancel(study: string, step: number): boolean {
    const running = this.running.get(`${study} ${step}`);
    if (!running) return false;
    const { cancel, abort } = running;
    Atomics.store(cancel, 0, CANCELLED);
    setTimeout(() => abort.abort(), PATIENCE).unref();
    return true;
  }

  /**
   * Reads in a thread of its own. Throws QueryError where a search is not understood.
   * @param gone aborted when nobody waits for the answer any more: one that takes long is ended
   */
  read<N extends ReadName>(
    name: N,
    study: string,
    asks: Reads[N]['asks'],
    gone?: AbortSignal,
  ): Promise<Reads[N]['gives']> {
    return this.asked('read', { folder: this.studies.folderOf(study), name, asks }, gone);
  }

  /** The same, telling those who listen to the study how far it is, where that takes long. */
  async readTelling<N extends 'estimate'>(
    name: N,
    study: string,
    asks: Reads[N]['asks'],
    gone?: AbortSignal,
  ): Promise<Reads[N]['gives']> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (share: number) => this.emit(study, { type: 'estimating', share }));
    try {
      const given = { folder: this.studies.folderOf(study), name, asks, port: port2 };
      return await this.asked('read', given, gone, [port2]);
    } finally {
      port1.close();
    }
  }

  /** Looks at an uploaded file in a thread of its own. Throws UnreadableFile, also where that takes too long. */
  inspectUpload(
    study: string,
    file: { readonly id: string; readonly name: string; readonly size: number; readonly largest: number },
    gone?: AbortSignal,
  ): Promise<UploadAnswer> {
    const { size, ...given } = file;
    return this.looking('inspectFile', { folder: this.studies.folderOf(study), ...given }, size, gone);
  }

  repreview(
    file: { readonly path: string; readonly name: string; readonly size: number },
    chosen: Partial<ImportMapping>,
    gone?: AbortSignal,
  ): Promise<Preview> {
    const { size, ...given } = file;
    return this.looking('repreview', { ...given, chosen }, size, gone);
  }

  /** A look that does not get any further for too long is ended with its thread. */
  private async looking<T>(
    name: 'inspectFile' | 'repreview',
    given: object,
    size: number,
    gone?: AbortSignal,
  ): Promise<T> {
    const longest = this.limits.longestLook + size / LOOKED_AT;
    const { port1, port2 } = new MessageChannel();
    const late = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    // The first word comes when a thread has begun: to wait for one is not held against the file.
    port1.on('message', () => {
      clearTimeout(timer);
      timer = setTimeout(() => late.abort(), longest);
    });
    try {
      return await this.asked<T>(name, { ...given, port: port2 }, gone, [port2], late);
    } catch (error) {
      if (!late.signal.aborted) throw error;
      throw new UnreadableFile(
        `It was looked at for ${counted(Math.round(longest / 1000), 'second')} without getting any further, and was left. If it is a good file, save it as CSV or in smaller parts.`,
      );
    } finally {
      clearTimeout(timer);
      port1.close();
    }
  }

  private async asked<T>(
    name: 'read' | 'inspectFile' | 'repreview',
    given: object,
    gone?: AbortSignal,
    transferList: MessagePort[] = [],
    abort = new AbortController(),
  ): Promise<T> {
    gone?.addEventListener('abort', () => void setTimeout(() => abort.abort(), PATIENCE).unref());
    const answer = (await ahead(this.gate, () =>
      this.pool.run(given, { name: name satisfies WorkerTask, signal: abort.signal, transferList }),
    )) as ReadAnswer<T>;
    if (answer.queryError) throw new QueryError(answer.queryError.message, answer.queryError.place);
    if (answer.unreadable) throw new UnreadableFile(answer.unreadable.message, answer.unreadable.row);
    if (answer.damaged) throw new Damaged(answer.damaged);
    return answer.value as T;
  }

  /** Listens to one study; tells at once what is running. Returns the function that ends it. */
  listen(study: string, listener: (event: StepEvent) => void): () => void {
    for (const running of this.running.values())
      if (running.study === study) listener({ type: 'progress', progress: running.last });
    this.events.on(study, listener);
    return () => void this.events.off(study, listener);
  }

  /** Listens to all studies. Returns the function that ends it. */
  listenToAll(listener: (study: string, event: StepEvent) => void): () => void {
    this.events.on(EVERY_STUDY, listener);
    return () => void this.events.off(EVERY_STUDY, listener);
  }

  /** Sends an event to those who listen to a study. */
  tell(study: string, event: StepEvent): void {
    this.emit(study, event);
  }

  /** Waits for what runs and ends the threads. */
  async close(): Promise<void> {
    this.closing = true;
    for (const { cancel } of this.running.values()) Atomics.store(cancel, 0, CLOSING);
    const queues = [...this.queues.values()];
    await Promise.all(queues.flatMap(({ last, lastBeside }) => [last, lastBeside]));
    await Promise.all(queues.map(({ last }) => last));
    await this.pool.destroy();
  }

  private async runOne(
    study: string,
    kind: StepKind,
    parameters: unknown,
    { followUp, of }: Why,
  ): Promise<{ step: Step; outcome: Outcome }> {
    const definition = stepDefinition(kind);
    const store = definition.beginsStudy ? await this.studies.make(study) : this.storeFor(study);
    if (followUp !== undefined) await countBeginning(store, followUp);
    const now = new Date().toISOString();
    const step = await beginStep(store, {
      kind,
      parameters,
      now,
      sentence: definition.describe(parameters as never, null),
      seed: definition.seed?.(parameters as never) ?? null,
      of,
    });
    of?.begun?.(step);
    const cancel = new Int32Array(new SharedArrayBuffer(4));
    const abort = new AbortController();
    const running: Running = {
      step,
      study,
      cancel,
      abort,
      last: { step, study, kind, phase: 'Starting', share: null, remainingMs: null },
    };
    this.running.set(`${study} ${step}`, running);
    this.emit(study, { type: 'progress', progress: running.last });
    const task = { step, study, kind, parameters, now, mostRows: this.limits.mostRows, followUp };
    const outcome = definition.prepare
      ? await this.preparedAndRun(task, running)
      : await this.cores(() => this.inThread<Outcome>('runStep', task, running));
    this.running.delete(`${study} ${step}`);
    if (outcome.fault) this.log.error(outcome.fault, `A step of the kind ${kind} failed.`);
    if (outcome.card) await this.studies.writeCard(study, outcome.card);
    const ended = await findStep(store, step);
    await definition.afterwards?.(this.studies, study, outcome.result);
    if (!ended) throw new Error(`Step ${step} is not in the logbook.`);
    this.emit(study, { type: 'step', step: ended });
    return { step: ended, outcome };
  }

  /** Prepares a step beside the others, and waits for its turn. */
  private async preparedAndRun(task: PlainTask, running: Running): Promise<Outcome> {
    const found = await this.beside(() => this.inThread<Prepared | Outcome>('prepareStep', task, running));
    if ('state' in found) return found;
    const queue = this.queueOf(task.study);
    const turn = queue.last.then(() =>
      this.cores(() => this.inThread<Outcome>('runStep', { ...task, ...found }, running)),
    );
    queue.last = turn.catch(() => undefined);
    return turn;
  }

  private async inThread<T>(
    name: 'runStep' | 'prepareStep',
    task: PlainTask,
    running: Running,
  ): Promise<T | Outcome> {
    const { port1, port2 } = new MessageChannel();
    const { cancel, abort } = running;
    const started = performance.now();
    port1.on('message', ({ phase, share }: { phase: string; share: number | null }) => {
      const remainingMs =
        share !== null && share > 0.02 ? ((performance.now() - started) * (1 - share)) / share : null;
      running.last = { step: task.step, study: task.study, kind: task.kind, phase, share, remainingMs };
      this.emit(task.study, { type: 'progress', progress: running.last });
    });
    try {
      const { gate } = this;
      const run = (): Promise<T> =>
        this.pool.run(
          { folder: this.studies.folderOf(task.study), task, port: port2, cancel, gate },
          { name: name satisfies WorkerTask, transferList: [port2], signal: abort.signal },
        );
      return await (name === 'prepareStep' ? run() : ahead(gate, run));
    } catch (error) {
      return this.endedUnheard(task, reasonOf(error, abort.signal), performance.now() - started);
    } finally {
      port1.close();
    }
  }

  /**
   * The thread of a step gave no answer: it was ended by force, or broke down, and with it went what it had not committed. It may have done its
   * work before that.
   */
  private async endedUnheard(
    { step, study, followUp }: PlainTask,
    why: Pick<Outcome, 'state' | 'error' | 'fault'>,
    duration: number,
  ): Promise<Outcome> {
    const store = this.storeFor(study);
    await placeFiles(store);
    const left = await findStep(store, step);
    const nothing = { result: null, place: {}, followUps: [], card: null };
    if (left?.state === 'done') {
      const followUps = (await leftFollowUps(store)).filter(({ id }) => !this.followed.has(`${study} ${id}`));
      return {
        ...nothing,
        state: 'done',
        error: null,
        result: left.result,
        followUps,
        card: await readCard(store),
      };
    }
    const { state, error } = why;
    const now = new Date().toISOString();
    await endStep(store, step, { state, result: null, sentence: null, error, now, duration });
    if (followUp !== undefined) await forgetFollowUp(store, followUp);
    return { ...nothing, ...why };
  }

  private storeFor(study: string): Store {
    const store = this.studies.anyStoreOf(study);
    if (!store) throw new Error('This study is not there any more.');
    return store;
  }

  private emit(study: string, event: StepEvent): void {
    this.events.emit(study, event);
    this.events.emit(EVERY_STUDY, study, event);
  }
}

/** Why a thread gave no answer. */
function reasonOf(error: unknown, { aborted }: AbortSignal): Pick<Outcome, 'state' | 'error' | 'fault'> {
  if (aborted) return { state: 'cancelled', error: new StepCancelled().message };
  const fault = faultOf(error);
  return { state: 'failed', error: unexpected(fault), fault };
}
