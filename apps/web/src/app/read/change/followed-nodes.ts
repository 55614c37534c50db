import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { THROUGH_TIME, type FollowedNodes, type Following, type Network } from '@pebble/contract';
import { nodeWords, wovenAs } from '@pebble/core';
import { counted, formatCount } from '@pebble/core/first';
import { Api, pathOf } from '../../api/api';
import type { Behind } from '../common/messages-behind';
import type { FlowPick } from './flow-options';

/** Nodes that are read at a time. */
const PAGE = 60;

/** The nodes of a group in a slice, where they go next, and the messages of each. */
@Component({
  selector: 'pt-followed-nodes',
  imports: [MatButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ heading() }}</h3>
    <p class="soft">
      {{ total() === null ? '…' : counted(total()!, words()[0], words()[1]) }}
      @if (hasMessages() && pick().to !== gone) {
        · <button class="evidence" (click)="readAll()">read their messages</button>
      }
      · <a [routerLink]="['/studies', network().study, 'map', sliceId()]">open the map of {{ slice().title }}</a>
    </p>
    @if (error(); as message) {
      <p class="error" role="alert">{{ message }}</p>
    }
    @if (goes().length > 0) {
      <h4>Where they go next</h4>
      <ul>
        @for (one of goes(); track one.words) {
          <li>
            <span class="name">{{ one.words }}</span>
            @if (one.pick; as to) {
              <button class="evidence" [attr.aria-label]="'Who they are: ' + one.words" (click)="picked.emit(to)">
                {{ count(one.nodes) }}
              </button>
            } @else {
              <span class="number">{{ count(one.nodes) }}</span>
            }
          </li>
        }
      </ul>
    }
    <h4>Who they are, most tied first</h4>
    <ul>
      @for (one of nodes(); track one.node) {
        <li>
          <span class="name" dir="auto">{{ one.label }}</span>
          @if (hasMessages()) {
            <button class="evidence" [attr.aria-label]="'Read ' + one.label" (click)="readOne(one)">read</button>
          }
        </li>
      }
    </ul>
    @if (total() !== null && nodes().length < total()!) {
      <button matButton="outlined" (click)="read(nodes().length)">
        More ({{ count(total()! - nodes().length) }})
      </button>
    }
  `,
  styleUrl: '../common/cells.scss',
})
export class FollowedNodesView {
  /** The whole. */
  readonly network = input.required<Network>();
  readonly following = input.required<Following>();
  readonly pick = input.required<FlowPick>();
  readonly titleOf = input.required<(line: string) => string>();
  readonly opened = output<Behind>();
  readonly picked = output<FlowPick>();
  private readonly api = inject(Api);
  protected readonly gone = GONE;
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly nodes = signal<FollowedNodes['nodes']>([]);
  protected readonly total = signal<number | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly words = computed(() => nodeWords(wovenAs(this.network())));
  protected readonly hasMessages = computed(() => this.network().messages > 0);
  protected readonly slice = computed(() => this.following().slices[this.pick().slice]);
  protected readonly sliceId = computed(() => this.slice().network);
  private readonly next = computed(() => this.following().slices.at(this.pick().slice + 1));
  protected readonly heading = computed(() => {
    const { line, to } = this.pick();
    const own = `${this.titleOf()(line)} in ${this.slice().title}`;
    if (to === null) return own;
    return to === GONE
      ? `${own}, not there in ${this.next()!.title}`
      : `${own}, in ${this.titleOf()(to)} in ${this.next()!.title}`;
  });
  /** Of a whole group: how many of it are where in the next slice. */
  protected readonly goes = computed(() => {
    const { slice, line, to } = this.pick();
    const next = this.next();
    const { groups, bands } = this.following();
    const own = groups.find((one) => one.slice === slice && one.line === line);
    if (to !== null || !next || own?.gone == null) return [];
    const goes = bands.filter((one) => one.slice === slice && one.from === line && one.to !== '');
    const rest = own.nodes - own.gone - goes.reduce((sum, { nodes }) => sum + nodes, 0);
    return [
      ...goes.map((one) => ({
        words: one.to === line ? 'stay' : `go to ${this.titleOf()(one.to)}`,
        nodes: one.nodes,
        pick: { slice, line, to: one.to },
      })),
      { words: 'are in a smaller group, or in none', nodes: rest, pick: null },
      { words: `are not there in ${next.title}`, nodes: own.gone, pick: { slice, line, to: GONE } },
    ].filter(({ nodes }) => nodes > 0);
  });

  constructor() {
    effect((onCleanup) => {
      this.pick();
      this.following();
      this.nodes.set([]);
      this.total.set(null);
      this.error.set(null);
      const reading = untracked(() => this.read(0));
      onCleanup(() => reading.unsubscribe());
    });
  }

  protected read(offset: number) {
    const { slice, line, to } = this.pick();
    const where = to === GONE ? { gone: 'true' as const } : to === null ? {} : { to };
    return this.api
      .followedNodes(pathOf(this.network()), { slice, line, ...where, offset, limit: PAGE })
      .subscribe({
        next: ({ total, nodes }) => {
          this.total.set(total);
          this.nodes.update((before) => (offset === 0 ? nodes : [...before, ...nodes]));
        },
        error: (error: Error) => this.error.set(error.message),
      });
  }

  /** What the nodes wrote in their slice; of those that go on, what they wrote in the next one. */
  protected readAll(): void {
    const { line, to } = this.pick();
    const study = this.network().study;
    const next = this.next();
    const isKept = to !== null && next;
    this.opened.emit({
      words: this.heading(),
      where: isKept ? `In ${next.title}` : `In ${this.slice().title}`,
      page: (offset, limit) =>
        isKept
          ? this.api.setMessages(
              { study },
              {
                set: {
                  what: 'kept',
                  network: next.network,
                  column: THROUGH_TIME,
                  group: to,
                  before: { network: this.sliceId(), group: line },
                },
                offset,
                limit,
              },
            )
          : this.api.groupMessages(
              { study, network: this.sliceId() },
              { column: THROUGH_TIME, group: line, offset, limit },
            ),
    });
  }

  protected readOne({ node, label }: FollowedNodes['nodes'][number]): void {
    const { line } = this.pick();
    const place = { study: this.network().study, network: this.sliceId() };
    this.opened.emit({
      words: label,
      where: `In ${this.slice().title}`,
      page: (offset, limit) =>
        this.api.groupMessages(place, { column: THROUGH_TIME, group: line, node, offset, limit }),
    });
  }
}

/** In place of a line: those that are not in the next slice. */
const GONE = 'gone';
