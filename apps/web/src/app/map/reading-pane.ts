import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { Condition, type EvidenceQuery, type Message, type Portrait, type TextSpan } from '@pebble/contract';
import {
  BY_HAND,
  formatValue,
  nodeLabels,
  numbersOf,
  periodPhrase,
  textsOf,
  type MapNetwork,
  withNeighbours,
} from '@pebble/core';
import { Api, type NetworkPlace, pathOf } from '../api/api';
import { NameMaker } from '../shared/name-maker';
import { MessageText } from '../shared/message-text';
import { counted, day, moment } from '../shared/words';
import type { Selection } from './session/with-selection';
import { ChosenNodes } from './chosen-nodes';
import { MapSession } from './session/map-session';
import { planning } from './planning';
import { NoteList } from './note-list';
import { hasOwnWeight, rankingColumn, tieDetail } from './tie-columns';

interface TieLine {
  readonly node: number;
  readonly handle: string;
  readonly weight: number;
  readonly detail: string;
  /** Whether the tie leads to the node that is read. */
  readonly into: boolean;
}

const PAGE = 30;
const TIES_SHOWN = 60;
/** Numbers of a node that are shown, as far as its network has them. */
const NUMBERS = [
  'inDegree',
  'outDegree',
  'degree',
  'inStrength',
  'outStrength',
  'strength',
  'betweenness',
  'messages',
];

/** What is selected on the map, and the messages behind it. */
@Component({
  selector: 'pt-reading-pane',
  imports: [ChosenNodes, MessageText, NameMaker, NoteList],
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

  constructor() {
    effect((onCleanup) => {
      const selection = this.selection();
      const network = this.session.network();
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

function describeNode(
  data: MapNetwork,
  node: number,
  titles: ReadonlyMap<string, { title: string; how: string }>,
) {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const weight = numbersOf(data.edges, 'weight');
  const handles = nodeLabels(data.nodes);
  const into: TieLine[] = [];
  const out: TieLine[] = [];
  const line = (other: number, e: number, leadsHere: boolean): TieLine => ({
    node: other,
    handle: handles[other],
    weight: weight[e],
    detail: tieDetail(data, e),
    into: leadsHere,
  });
  for (let e = 0; e < source.length; e++) {
    if (source[e] === node) out.push(line(target[e], e, false));
    else if (target[e] === node) into.push(line(source[e], e, true));
  }
  const byWeight = (a: TieLine, b: TieLine): number =>
    b.weight - a.weight || a.handle.localeCompare(b.handle);
  return {
    node,
    handle: textsOf(data.nodes, 'handle')[node],
    name: textsOf(data.nodes, 'name')[node],
    community: numbersOf(data.nodes, 'community')[node],
    numbers: shownNumbers(data).map((column) => {
      const values = numbersOf(data.nodes, column);
      const value = values[node];
      let higher = 0;
      let most = 0;
      for (const other of values) {
        if (other > value) higher++;
        if (other > most) most = other;
      }
      return {
        title: titles.get(column)?.title ?? column,
        how: titles.get(column)?.how ?? '',
        value,
        rank: higher + 1,
        share: most > 0 ? value / most : 0,
      };
    }),
    intoCount: into.length,
    outCount: out.length,
    both: [...into, ...out].sort(byWeight).slice(0, TIES_SHOWN),
    into: into.sort(byWeight).slice(0, TIES_SHOWN),
    out: out.sort(byWeight).slice(0, TIES_SHOWN),
  };
}

/** In an undirected network the degree says it all; in a directed one its two halves do. */
function shownNumbers({ nodes }: MapNetwork): string[] {
  const directed = 'inDegree' in nodes;
  return NUMBERS.filter((name) => name in nodes && !(directed && (name === 'degree' || name === 'strength')));
}

function describeTie(data: MapNetwork, from: number, to: number) {
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  const find = (a: number, b: number): number =>
    source.findIndex((s: number, e: number) => s === a && target[e] === b);
  const edge = find(from, to);
  const handles = nodeLabels(data.nodes);
  if (edge < 0) return null;
  return {
    from,
    to,
    fromHandle: handles[from],
    toHandle: handles[to],
    weight: numbersOf(data.edges, 'weight')[edge],
    detail: tieDetail(data, edge),
    first: 'first' in data.edges ? numbersOf(data.edges, 'first')[edge] : NaN,
    last: 'last' in data.edges ? numbersOf(data.edges, 'last')[edge] : NaN,
    hasOwnWeight: hasOwnWeight(data, edge),
    byHand: BY_HAND in data.edges ? textsOf(data.edges, BY_HAND)[edge] : '',
    hasBack: from !== to && find(to, from) >= 0,
  };
}

function describeCommunity(data: MapNetwork, community: number) {
  const group = numbersOf(data.nodes, 'community');
  const { column, words } = rankingColumn(data);
  const degree = numbersOf(data.nodes, column);
  const handles = nodeLabels(data.nodes);
  const members: number[] = [];
  group.forEach((value: number, v: number) => void (value === community && members.push(v)));
  const source = numbersOf(data.edges, 'source');
  const target = numbersOf(data.edges, 'target');
  let inside = 0;
  let across = 0;
  for (let e = 0; e < source.length; e++) {
    const a = group[source[e]] === community;
    const b = group[target[e]] === community;
    if (a && b) inside++;
    else if (a || b) across++;
  }
  members.sort((a, b) => degree[b] - degree[a]);
  return {
    community,
    size: members.length,
    inside,
    across,
    leaders: members
      .slice(0, 8)
      .map((node) => ({ node, handle: handles[node], note: `${words} ${formatValue(degree[node])}` })),
  };
}
