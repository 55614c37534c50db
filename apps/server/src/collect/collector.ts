import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import {
  CollectRun,
  RunCounts,
  type CollectEstimate,
  type CollectPlan,
  type KnownService,
  type NewRun,
  type RunCommand,
  type RunState,
  type Service,
  type ServiceAccess,
  type ServiceDescription,
  type ServiceKind,
} from '@pebble/contract';
import { formatCount } from '@pebble/core';
import {
  deleteRun,
  findRun,
  insertRun,
  sourceOfRun,
  UNFINISHED,
  unfinishedRuns,
  updateRun,
  type StoredRun,
} from '../storage/collectRuns';
import type { Store } from '../storage/open';
import type { StudyFolders } from '../storage/studyFolders';
import { DiskFull, isDiskFull, roomIn, STEP_NEEDS_ROOM } from '../files/diskFull';
import { spoolPath } from '../files/places';
import type { Runner } from '../runner/runner';
import type { Connector, Since } from './connector';
import { hubConnector } from './hubConnector';
import { outcomeNotes } from './outcomeNotes';
import { mailConnector } from './mailConnector';
import { Secrets } from './secrets';
import { ServiceClient, ServiceError, type Access } from './serviceClient';
import { Spool } from './spool';

const CONNECTORS: Readonly<Record<ServiceKind, Connector>> = { hub: hubConnector, mail: mailConnector };

const DISK_FULL =
  'The disk is full. What came so far is kept; the run goes on by itself when there is room again.';
/** Bytes that must be free before such a run goes on. */
const ENOUGH_ROOM = 64 * 1024 ** 2;

/** Why a run stops before its end: it is paused, ended with what is there, or the application is closed. */
type Stop = 'pause' | 'cancel' | 'close';

interface AtWork {
  readonly controller: AbortController;
  readonly ended: Promise<void>;
}

/**
 * Collecting runs: each asks its service a little at a time, writes what came to its spool, and then the place where to go on, so that it
 * goes on there after a stop of any kind, with nothing lost and nothing doubled. At its end the spool becomes a source by a step.
 */
export class Collector {
  private readonly atWork = new Map<string, AtWork>();
  private readonly secrets: Secrets;
  private closing = false;
  /** Runs that go on when there is room on the disk. */
  private readonly waitingForRoom = new Map<string, NodeJS.Timeout>();

  /**
   * @param simulated services that ship with the application, with their secrets
   * @param pace milliseconds between two requests at least
   * @param look milliseconds after which one looks again whether there is room on the disk
   */
  constructor(
    private readonly studies: StudyFolders,
    private readonly runner: Runner,
    private readonly simulated: readonly (Access & { service: Service })[],
    private readonly pace = 500,
    private readonly look = 5000,
  ) {
    this.secrets = new Secrets(studies.dataFolder);
  }

  /** Goes on with the runs that were at work when the application stopped. */
  async resumeAll(): Promise<void> {
    for (const store of this.studies) for (const run of await unfinishedRuns(store)) this.work(store, run.id);
  }

  services(): KnownService[] {
    const kept = this.secrets.all().filter(({ service }) => !this.simulatedAt(service.address));
    return [
      ...this.simulated.map(({ service, clientId }) => ({
        ...service,
        clientId,
        hasSecret: true,
        simulated: true,
      })),
      ...kept.map(({ service, clientId }) => ({ ...service, clientId, hasSecret: true, simulated: false })),
    ];
  }

  /** Asks a service what it is. Throws ServiceError. */
  async describe(access: ServiceAccess): Promise<ServiceDescription> {
    return this.connectorOf(access.service).describe(this.clientFor(access.service, this.meansOf(access)));
  }

  /** What a plan costs at most at the service's budget. */
  async estimate(access: ServiceAccess, plan: CollectPlan): Promise<CollectEstimate> {
    const { limits } = await this.describe(access);
    const { requests, notes } = this.connectorOf(access.service).estimate(plan, limits);
    const { requests: budget, windowSeconds } = limits;
    const windows = budget === null ? 0 : Math.floor((requests - 1) / budget);
    return { requests, waitSeconds: windows * (windowSeconds ?? 0), notes };
  }

  async begin(
    study: string,
    { name, access, plan }: NewRun,
    previous: StoredRun | null = null,
  ): Promise<CollectRun> {
    const means = this.meansOf(access);
    if (!this.simulatedAt(access.service.address)) this.secrets.keep({ service: access.service, ...means });
    const run: StoredRun = {
      id: randomUUID(),
      study,
      name,
      service: access.service,
      plan,
      state: 'running',
      counts: RunCounts.parse({}),
      share: null,
      waitUntil: null,
      notes: [],
      error: null,
      source: null,
      previous: previous?.id ?? null,
      createdAt: new Date().toISOString(),
      endedAt: null,
      place: null,
      spoolBytes: 0,
      serviceState: null,
      endedByHand: false,
    };
    const store = this.storeOf(study);
    await insertRun(store, run);
    this.work(store, run.id);
    return CollectRun.parse(run);
  }

  /** Pauses, resumes or ends a run, runs it again for what is new, or forgets it. Null when there is no such run. */
  async command(study: string, id: string, command: RunCommand): Promise<CollectRun | null> {
    const store = this.storeOf(study);
    const run = await findRun(store, id);
    if (!run) return null;
    switch (command) {
      case 'pause':
        await this.stop(id, 'pause');
        break;
      case 'resume':
        if (run.state === 'paused' || run.state === 'failed') {
          await updateRun(store, id, { state: stateToGoOn(run), error: null });
          this.work(store, id);
        }
        break;
      case 'cancel':
        if (this.atWork.has(id)) await this.stop(id, 'cancel');
        else if (run.state === 'paused' || run.state === 'failed') {
          await updateRun(store, id, { state: 'storing', error: null, ...endedByHand(run) });
          this.work(store, id);
        }
        break;
      case 'again': {
        const access = { service: run.service, clientId: '', secret: '' };
        const name = `${run.name.replace(/(, again)+$/, '')}, again`;
        return this.begin(run.study, { name, access, plan: run.plan }, run);
      }
      case 'forget':
        await this.stop(id, 'cancel', false);
        await deleteRun(store, id);
        rmSync(spoolPath(store.folder, id), { force: true });
        return run;
    }
    const now = await findRun(store, id);
    return now ? CollectRun.parse(now) : null;
  }

  /** Stops all runs where they are; they go on when the application is started again. */
  async close(): Promise<void> {
    this.closing = true;
    for (const timer of this.waitingForRoom.values()) clearTimeout(timer);
    await Promise.all([...this.atWork.keys()].map((id) => this.stop(id, 'close')));
  }

  private async stop(id: string, why: Stop, stores = true): Promise<void> {
    const work = this.atWork.get(id);
    if (!work) return;
    work.controller.abort(new Stopped(why, stores));
    await work.ended;
  }

  private storeOf(study: string): Store {
    const store = this.studies.storeOf(study);
    if (!store) throw new ServiceError('This study is not there any more.', false);
    return store;
  }

  private work(store: Store, id: string): void {
    if (this.closing || this.atWork.has(id)) return;
    const controller = new AbortController();
    const ended = this.run(store, id, controller.signal)
      // However a library wraps it: what was aborted ended for the reason that was given.
      .catch((error: unknown) =>
        this.onEnd(store, id, controller.signal.aborted ? controller.signal.reason : error),
      )
      // Not even that could be written: it is tried again.
      .catch((error: unknown) => this.goOnLater(store, id, error))
      .finally(() => void this.atWork.delete(id));
    this.atWork.set(id, { controller, ended });
  }

  private async run(store: Store, id: string, signal: AbortSignal): Promise<void> {
    let run = await this.existing(store, id);
    if (run.state !== 'storing') await this.collect(store, run, signal);
    run = await this.existing(store, id);
    await this.storeSource(store, run);
  }

  /** Asks until all is there, or until it is stopped. */
  private async collect(store: Store, begun: StoredRun, signal: AbortSignal): Promise<void> {
    const { id, service, plan } = begun;
    const connector = this.connectorOf(service);
    const spool = await Spool.at(spoolPath(store.folder, id), begun.spoolBytes);
    const onWait = (until: number | null): Promise<void> =>
      this.change(store, id, { state: until === null ? 'running' : 'waiting', waitUntil: until });
    const client = this.clientFor(
      service,
      this.meansOf({ service, clientId: '', secret: '' }),
      signal,
      onWait,
    );
    const since = await this.sinceOf(store, begun);
    const before = { ...begun.counts };
    const counts = { ...begun.counts };
    let notes = [...begun.notes, ...missingNote(begun.spoolBytes - spool.bytes)];
    let place = begun.place;
    for (let isFirst = true; isFirst || place !== null; isFirst = false) {
      signal.throwIfAborted();
      const advance = await connector.advance(client, plan, place, since, (one) => spool.isNew(one));
      const fresh = await spool.add(advance.records);
      for (const { what } of fresh) counts[what]++;
      counts.repeated += advance.records.length - fresh.length;
      counts.expandedLinks += advance.expandedLinks ?? 0;
      if (advance.list) counts[advance.list === 'cut' ? 'cutLists' : 'wholeLists']++;
      for (const name of ['requests', 'limited', 'faults', 'tokens', 'waitedSeconds'] as const)
        counts[name] = before[name] + client.counts[name];
      notes = [...notes, ...(advance.notes ?? [])];
      place = advance.place;
      await this.change(store, id, {
        counts,
        notes,
        place,
        spoolBytes: spool.bytes,
        share: advance.share,
        ...(advance.state ? { serviceState: advance.state } : {}),
        ...(place === null ? { state: 'storing' } : {}),
      });
    }
    await this.change(store, id, {
      notes: [...notes, ...outcomeNotes(plan, counts)],
      state: 'storing',
      share: 1,
    });
  }

  /** What was collected becomes a source; once only, also when the application was stopped meanwhile. */
  private async storeSource(store: Store, run: StoredRun): Promise<void> {
    const there = await sourceOfRun(store, run.id);
    if (there === null) {
      const { step } = await this.runner.submit(run.study, {
        kind: 'collect-source',
        parameters: {
          run: run.id,
          name: run.name,
          service: run.service,
          plan: run.plan,
          requests: run.counts.requests,
          notes: run.notes,
        },
      });
      if (step.error === STEP_NEEDS_ROOM) throw new DiskFull(STEP_NEEDS_ROOM);
      if (step.state !== 'done') throw new ServiceError(step.error ?? 'What came could not be stored.', true);
    }
    const source = there ?? (await sourceOfRun(store, run.id));
    rmSync(spoolPath(store.folder, run.id), { force: true });
    await this.change(store, run.id, {
      state: run.endedByHand ? 'cancelled' : 'done',
      source,
      waitUntil: null,
      endedAt: new Date().toISOString(),
    });
  }

  /** What to do when a run ends before its end. */
  private async onEnd(store: Store, id: string, error: unknown): Promise<void> {
    const stopped = error instanceof Stopped ? error : null;
    if (stopped?.why === 'close') return;
    if (stopped?.why === 'pause') {
      await this.change(store, id, { state: 'paused', waitUntil: null });
      return;
    }
    if (stopped) {
      if (!stopped.stores) return;
      const run = await this.existing(store, id);
      await this.change(store, id, { state: 'storing', waitUntil: null, ...endedByHand(run) });
      await this.storeSource(store, await this.existing(store, id)).catch((problem: unknown) =>
        this.fail(store, id, problem),
      );
      return;
    }
    await this.fail(store, id, error);
  }

  private async fail(store: Store, id: string, error: unknown): Promise<void> {
    if (isDiskFull(error)) {
      this.goOnLater(store, id, error);
      await this.change(store, id, { state: 'paused', error: DISK_FULL, waitUntil: null });
      return;
    }
    const passing = error instanceof ServiceError && error.passing;
    const message =
      error instanceof ServiceError
        ? error.message
        : `Something went wrong that the application did not expect: ${error instanceof Error ? error.message : String(error)}. What came so far is kept.`;
    await this.change(store, id, { state: passing ? 'paused' : 'failed', error: message, waitUntil: null });
  }

  /** A run that ended because nothing can be written goes on when there is room; another fault was not expected, and is told. */
  private goOnLater(store: Store, id: string, error: unknown): void {
    if (!isDiskFull(error)) process.emitWarning(error instanceof Error ? error : String(error));
    if (this.closing) return;
    clearTimeout(this.waitingForRoom.get(id));
    const timer = setTimeout(() => {
      this.waitingForRoom.delete(id);
      this.goOnWithRoom(store, id).catch((problem: unknown) => this.goOnLater(store, id, problem));
    }, this.look).unref();
    this.waitingForRoom.set(id, timer);
  }

  private async goOnWithRoom(store: Store, id: string): Promise<void> {
    const run = await findRun(store, id);
    // Somebody may have resumed, ended or forgotten it meanwhile.
    if (!run || this.atWork.has(id)) return;
    if (run.state === 'paused' ? run.error !== DISK_FULL : !UNFINISHED.includes(run.state)) return;
    if (roomIn(store.folder) < ENOUGH_ROOM) throw new DiskFull(DISK_FULL);
    await this.change(store, id, { state: stateToGoOn(run), error: null });
    this.work(store, id);
  }

  private async change(store: Store, id: string, part: Parameters<typeof updateRun>[2]): Promise<void> {
    await updateRun(store, id, part);
    const run = await findRun(store, id);
    if (run) this.runner.tell(run.study, { type: 'collecting', run: CollectRun.parse(run) });
  }

  private async existing(store: Store, id: string): Promise<StoredRun> {
    const run = await findRun(store, id);
    if (!run) throw new ServiceError('This run is not there any more.', false);
    return run;
  }

  /** What is known already, for a run that goes on from another one: where that found nothing new, what the one before it had found. */
  private async sinceOf(store: Store, { previous }: StoredRun): Promise<Since> {
    const before = previous === null ? null : await findRun(store, previous);
    if (!before) return { time: null, state: null };
    const newest = await store.query
      .selectFrom('message')
      .select((e) => e.fn.max('time').as('time'))
      .where('source_id', '=', before.source)
      .executeTakeFirst();
    const earlier = newest?.time ? null : await this.sinceOf(store, before);
    const state = before.source === null ? (earlier?.state ?? null) : before.serviceState;
    return { time: newest?.time ?? earlier?.time ?? null, state };
  }

  private clientFor(
    { address }: Service,
    access: Access,
    signal: AbortSignal = new AbortController().signal,
    onWait: (until: number | null) => Promise<void> = () => Promise.resolve(),
  ): ServiceClient {
    return new ServiceClient(address, access, signal, onWait, this.pace);
  }

  private connectorOf({ kind }: Service): Connector {
    return CONNECTORS[kind];
  }

  private simulatedAt(address: string): Access | null {
    return this.simulated.find(({ service }) => service.address === address) ?? null;
  }

  /** The means to enter a service: those that are given, or those that are kept. Throws ServiceError when there are none. */
  private meansOf({ service, clientId, secret }: ServiceAccess): Access {
    if (secret !== '') return { clientId, secret };
    const kept = this.simulatedAt(service.address) ?? this.secrets.find(service.address);
    if (!kept)
      throw new ServiceError(
        this.secrets.isBroken
          ? 'The file with the secrets of services (collecting/secrets.json) cannot be read. Give the client id and the secret of this service again; the file is kept beside the new one.'
          : 'Give the client id and the secret of this service.',
        false,
      );
    return { clientId: clientId || kept.clientId, secret: kept.secret };
  }
}

/** The reason with which a run's work is aborted. */
class Stopped extends Error {
  constructor(
    readonly why: Stop,
    readonly stores: boolean,
  ) {
    super('The run was stopped.');
  }
}

/** With what a run goes on: where all is there that it asked for, this is stored, and not asked for again. */
function stateToGoOn({ place, share }: StoredRun): RunState {
  return place === null && share === 1 ? 'storing' : 'running';
}

function missingNote(bytes: number): string[] {
  if (bytes <= 0) return [];
  return [
    `${formatCount(bytes)} bytes of what had come could not be read again from the disk and are missing; what was there before and after them is kept. Collect again for what is missing.`,
  ];
}

/** What is written of a run that somebody ends before its end. */
function endedByHand({ counts, notes }: StoredRun): Pick<StoredRun, 'endedByHand' | 'notes'> {
  const note = `The run was ended by hand after ${formatCount(counts.requests)} requests; what had come was kept.`;
  return { endedByHand: true, notes: [...notes, note] };
}
