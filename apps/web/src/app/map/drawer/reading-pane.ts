import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { Condition, type EvidenceQuery, type Message, type Portrait, type TextSpan } from '@pebble/contract';
import {
  formatCount,
  formatValue,
  nodeLabels,
  numbersOf,
  periodPhrase,
  textsOf,
  withNeighbours,
} from '@pebble/core';
import { Api, type NetworkPlace, pathOf } from '../../api/api';
import { NameMaker } from '../../shared/name-maker';
import { MessageText } from '../../shared/message-text';
import { counted, day, moment } from '../../shared/words';
import type { Selection } from '../session/with-selection';
import { ChosenNodes } from './chosen-nodes';
import { MapSession } from '../session/map-session';
import { planning } from '../session/planning';
import { OneStop } from '../../shared/one-stop';
import { NoteList } from '../panels/note-list';
import { describeCommunity, describeNode, describeTie } from './selected-things';

const PAGE = 30;

/** What is selected on the map, and the messages behind it. */
@Component({
  selector: 'pt-reading-pane',
  imports: [
    MatTabLink,
    MatTabNav,
    MatTabNavPanel,
    MatTooltip,
    MatButton,
    ChosenNodes,
    MessageText,
    NameMaker,
    NoteList,
    OneStop,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reading-pane.html',
  styleUrls: ['./name-link.scss', './reading-pane.scss'],
})
export class ReadingPane {
  private readonly api = inject(Api);
  protected readonly session = inject(MapSession);
  protected readonly plan = planning();
  protected readonly selection = this.session.selection;
  protected readonly marked = this.session.marked;
  protected readonly messages = signal<readonly Message[]>([]);
  protected readonly total = signal<number | null>(null);
  protected readonly portrait = signal<Portrait | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly tab = signal<'messages' | 'in' | 'out'>('messages');
  protected readonly counted = counted;
  protected readonly count = formatCount;
  protected readonly moment = moment;
  protected readonly day = day;
  protected readonly formatValue = formatValue;

  protected readonly node = computed(() => {
    const data = this.session.data();
    const selection = this.selection();
    return data && selection?.what === 'node' ? describeNode(data, selection.node, this.titles()) : null;
  });
  protected readonly tie = computed(() => {
    const data = this.session.data();
    const selection = this.selection();
    return data && selection?.what === 'tie' ? describeTie(data, selection.source, selection.target) : null;
  });
  protected readonly community = computed(() => {
    const data = this.session.data();
    const selection = this.selection();
    return data && selection?.what === 'community' ? describeCommunity(data, selection.community) : null;
  });
  /** The part of the time that the map shows; the messages are those of it. */
  protected readonly period = computed(() => this.session.description().show.period);
  protected readonly periodPhrase = periodPhrase;
  protected readonly hasMessages = this.session.hasMessages;
  protected readonly isByAddress = this.session.isByAddress;
  protected readonly words = this.session.words;
  protected readonly directed = computed(() => this.session.network()?.directed ?? true);
  /** Handles that are marked in the texts: those of the selection. */
  protected readonly markedHandles = computed(() => {
    const data = this.session.data();
    const selection = this.selection();
    if (!data || (selection?.what !== 'node' && selection?.what !== 'tie')) return [];
    const node = selection.what === 'node' ? selection.node : selection.target;
    return [nodeLabels(data.nodes)[node].toLowerCase()];
  });
  private readonly titles = computed(
    () =>
      new Map(this.session.network()?.columns.map(({ name, title, how }) => [name, { title, how }]) ?? []),
  );

  /** Which network is read; the same one after columns were added to it, so that nobody loses the place in what they read. */
  private readonly place = computed(() => this.session.network(), { equal: (a, b) => a?.id === b?.id });

  constructor() {
    effect((onCleanup) => {
      const selection = this.selection();
      const network = this.place();
      this.messages.set([]);
      this.total.set(null);
      this.portrait.set(null);
      this.error.set(null);
      this.tab.set('messages');
      if (!selection || !network || selection.what === 'nodes') return;
      if (!this.session.hasMessages()) {
        this.tab.set('in');
        return;
      }
      const reading = this.read(network, this.query(selection), 0);
      const portrait =
        selection.what === 'community'
          ? this.api.portrait({ ...pathOf(network), community: selection.community }).subscribe({
              next: (p) => this.portrait.set(p),
              error: (e: Error) => this.error.set(e.message),
            })
          : null;
      onCleanup(() => {
        reading.unsubscribe();
        portrait?.unsubscribe();
      });
    });
  }

  protected more(): void {
    const selection = this.selection();
    const network = this.session.network();
    if (selection && network && selection.what !== 'nodes')
      this.read(network, this.query(selection), this.messages().length);
  }

  protected open(message: Message): void {
    const network = this.session.network();
    if (!network) return;
    if (this.marked()?.message === message.id) {
      this.session.markMessage(message.id, []);
      return;
    }
    this.api.messageTies({ ...pathOf(network), message: message.id }).subscribe({
      next: ({ ties }) => this.session.markMessage(message.id, ties),
      error: (error: Error) => this.error.set(error.message),
    });
  }

  /** Whether the selected node stays where it is when the map is arranged again. */
  protected readonly isHeld = computed(() => {
    const selection = this.session.selection();
    return selection?.what === 'node' && this.session.description().held.includes(selection.node);
  });

  protected hold(): void {
    const selection = this.session.selection();
    if (selection?.what !== 'node') return;
    const before = this.session.description();
    const others = before.held.filter((node) => node !== selection.node);
    const held = this.isHeld() ? others : [...others, selection.node];
    this.session.describe({ ...before, held });
  }

  /** Shows only the selected node and what is one step away; the caption says so, where it can be changed. */
  protected showAround(): void {
    const selection = this.session.selection();
    if (selection?.what !== 'node') return;
    const before = this.session.description();
    const near = Condition.parse({ what: 'near', nodes: [selection.node], steps: 1 });
    const others = before.show.where.conditions.filter(({ what }) => what !== 'near');
    const where = { ...before.show.where, conditions: [...others, near] };
    this.session.describe({ ...before, show: { ...before.show, where } });
  }

  /** Shows the selected node and its neighbours alone, with ties in and out apart. */
  protected setInMiddle(): void {
    const selection = this.session.selection();
    if (selection?.what !== 'node') return;
    this.showAround();
    const settings = { ...this.session.settings(), method: 'round-one' as const, centre: selection.node };
    this.session.arrange({ ...settings, begin: 'anew', column: null, other: null });
  }

  /** Chooses the selected node with its neighbours. */
  protected chooseAround(): void {
    const rows = this.session.rows();
    if (rows) this.choose(withNeighbours(rows, this.session.chosen()));
  }

  protected chooseMembers(community: number): void {
    const data = this.session.data();
    if (!data) return;
    const group = numbersOf(data.nodes, 'community');
    const shown = this.session.prepared()?.nodes ?? [];
    this.choose([...shown].filter((v) => group[v] === community));
  }

  private choose(nodes: readonly number[]): void {
    this.session.chooseNodes(nodes);
  }

  /** What a community is called. */
  protected titleOf(community: number): string {
    return this.session.titles()['community']?.[String(community)] ?? `Community ${community}`;
  }

  /** The groups that Read is to show: this one alone. */
  protected portraitsOf(community: number): string {
    return JSON.stringify([String(community)]);
  }

  protected selectNode(node: number): void {
    this.session.selectNode(node);
  }

  protected selectTie(source: number, target: number): void {
    this.session.selectTie({ source, target });
  }

  protected selectCommunity(community: number): void {
    this.session.selectCommunity(community);
  }

  protected follow({ what, key }: TextSpan): void {
    const data = this.session.data();
    if (what !== 'mention' || !data) return;
    const node = textsOf(data.nodes, 'handle').findIndex(
      (handle) => handle.toLowerCase() === key.toLowerCase(),
    );
    if (node >= 0) this.selectNode(node);
  }

  protected close(): void {
    this.session.clearSelection();
  }

  private query(selection: Exclude<Selection, { what: 'nodes' }>): Partial<EvidenceQuery> {
    if (selection.what === 'node') return { node: selection.node };
    return selection.what === 'tie'
      ? { source: selection.source, target: selection.target }
      : { community: selection.community };
  }

  private read(network: NetworkPlace, query: Partial<EvidenceQuery>, offset: number) {
    const { from, until } = this.period() ?? { from: null, until: null };
    const time = { ...(from === null ? {} : { from }), ...(until === null ? {} : { until }) };
    return this.api.evidence(pathOf(network), { ...query, ...time, offset, limit: PAGE }).subscribe({
      next: ({ total, messages }) => {
        this.total.set(total);
        this.messages.update((before) => (offset === 0 ? messages : [...before, ...messages]));
      },
      error: (error: Error) => this.error.set(error.message),
    });
  }
}
