import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { FullPortrait, GroupNotes, Network, PortraitList } from '@pebble/contract';
import type { Subscription } from 'rxjs';
import { Api, pathOf } from '../../api/api';
import { stepRun } from '../../shared/step-run';

/** Portraits that are shown when nothing else was chosen. */
const AT_FIRST = 4;
/** Portraits that stand beside each other at most. */
export const MOST = 8;

/** The portraits of a grouping: which there are, which of them are shown, and in which order. */
@Injectable()
export class Portraits {
  private readonly api = inject(Api);
  readonly network = signal<Network | null>(null);
  readonly column = signal('');
  /** Null until they are read, and where there are none. */
  readonly list = signal<PortraitList | null>(null);
  readonly isRead = signal(false);
  readonly error = signal<string | null>(null);
  /** By group; a portrait comes when it is shown for the first time. */
  private readonly bodies = signal<ReadonlyMap<string, FullPortrait>>(new Map());
  private readonly coming = new Map<string, Subscription>();
  /** What was written here, by group: an answer that is older than it does not count. */
  private readonly written = new Map<string, GroupNotes>();
  /** Groups that are shown, in their order; null for the first ones. */
  readonly chosen = signal<readonly string[] | null>(null);
  readonly drawing = stepRun();
  readonly noting = stepRun();

  readonly shown = computed<readonly string[]>(() => {
    const groups = this.list()?.groups.map(({ group }) => group) ?? [];
    const wanted = this.chosen() ?? groups.filter((_, i) => i < AT_FIRST);
    return wanted.filter((group) => groups.includes(group)).slice(0, MOST);
  });
  /** The shown ones; null for one that is on its way. */
  readonly portraits = computed(() =>
    this.shown().map((group) => ({ group, portrait: this.bodies().get(group) ?? null })),
  );

  constructor() {
    // What is shown is read, one after the other as they come.
    effect(() => {
      const [network, column, shown] = [this.network(), this.column(), this.shown()];
      const known = this.bodies();
      if (!network) return;
      for (const group of shown)
        if (!known.has(group) && !this.coming.has(group)) untracked(() => this.read(network, column, group));
    });
  }

  /** Of the groups, by their places. */
  readonly titles = computed(() =>
    (this.list()?.groups ?? []).map(({ notes, suggested }) => notes.title || suggested),
  );

  /** What a group is called: its own title, or the one that suggests itself. */
  titleOf(group: string): string {
    const head = this.list()?.groups.find((one) => one.group === group);
    return head ? head.notes.title || head.suggested : group;
  }

  /** Reads which portraits there are; those that are shown are read anew where they are others. */
  open(network: Network, column: string): void {
    const isOther = this.network()?.id !== network.id || this.column() !== column;
    if (isOther) {
      this.forget();
      this.list.set(null);
      this.isRead.set(false);
    }
    this.network.set(network);
    this.column.set(column);
    this.error.set(null);
    this.api.portraits(pathOf(network), { column }).subscribe({
      next: (list) => {
        if (this.network()?.id !== network.id || this.column() !== column) return;
        if (list?.step !== this.list()?.step) this.forget();
        this.list.set(list);
        this.isRead.set(true);
      },
      error: (error: Error) => this.error.set(error.message),
    });
  }

  /** Draws them, or draws them again. */
  draw(settings: PortraitList['settings']): void {
    const network = this.network();
    if (!network) return;
    const column = this.column();
    this.drawing.start(network.study, 'portray-groups', { network: network.id, column, settings }, () =>
      this.open(network, column),
    );
  }

  /** Keeps what was written about a group; what is written next goes by it at once. @param done is told when it is kept */
  note(group: string, change: Partial<GroupNotes>, done: () => void = () => undefined): void {
    const [network, body] = [this.network(), this.bodies().get(group)];
    if (!network || !body) return;
    const notes = { ...body.notes, ...change };
    const column = this.column();
    this.written.set(group, notes);
    this.bodies.update((before) => new Map(before).set(group, { ...body, notes }));
    this.list.update(
      (list) =>
        list && {
          ...list,
          groups: list.groups.map((one) => (one.group === group ? { ...one, notes } : one)),
        },
    );
    this.noting.start(
      network.study,
      'note-group',
      { network: network.id, column, group, notes },
      () => {
        // A new quotation comes with its text.
        if (change.quotations) this.read(network, column, group);
        done();
      },
      () => {
        // What could not be kept is not shown as if it were.
        this.written.delete(group);
        this.read(network, column, group);
        this.open(network, column);
      },
    );
  }

  memoOf(group: string): string {
    return this.bodies().get(group)?.notes.memo ?? '';
  }

  quotationsOf(group: string): readonly number[] {
    return this.bodies().get(group)?.notes.quotations ?? [];
  }

  /** Keeps a message as a quotation of a group, or takes it away again. @param done is told whether it is one now */
  quote(group: string, message: number, done: (isQuoted: boolean) => void): void {
    const before = this.quotationsOf(group);
    const isQuoted = before.includes(message);
    const quotations = isQuoted ? before.filter((one) => one !== message) : [...before, message];
    this.note(group, { quotations }, () => done(!isQuoted));
  }

  show(groups: readonly string[] | null): void {
    this.chosen.set(groups);
  }

  private read(network: Network, column: string, group: string): void {
    this.coming.get(group)?.unsubscribe();
    this.coming.set(
      group,
      this.api.groupPortrait(pathOf(network), { column, group }).subscribe({
        next: (portrait) => {
          this.coming.delete(group);
          const notes = this.written.get(group) ?? portrait.notes;
          this.bodies.update((before) => new Map(before).set(group, { ...portrait, notes }));
        },
        error: (error: Error) => this.error.set(error.message),
      }),
    );
  }

  private forget(): void {
    for (const one of this.coming.values()) one.unsubscribe();
    this.coming.clear();
    this.written.clear();
    this.bodies.set(new Map());
  }
}
