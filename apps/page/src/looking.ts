import { computed, signal } from '@preact/signals';
import { wholeShown, type Condition, type Shown } from '@pebble/contract';
import {
  bundling,
  counted,
  focusOnNodes,
  focusOnTies,
  formatCount,
  neighbourRows,
  graphOf,
  legendSections,
  NIGHT,
  numbersOf,
  PAPER,
  partOfMap,
  shownPhrase,
  textsIn,
  type BundledPaths,
  type Focus,
  type Size,
  type View,
} from '@pebble/core';
import { held, whole } from './held';

/** What a reader has picked. */
type Picked =
  | { readonly what: 'node'; readonly node: number }
  | { readonly what: 'tie'; readonly tie: number }
  | { readonly what: 'group'; readonly colour: number };

/** What a reader wants to see of the map. */
export interface Sought {
  readonly atLeast: number;
  /** Colours of groups that are left out. */
  readonly without: ReadonlySet<number>;
  readonly column: string;
  readonly from: number | null;
  readonly until: number | null;
  readonly named: string;
  readonly alone: boolean;
  /** Days since the first one, both included; null for all. */
  readonly days: readonly [from: number, until: number] | null;
}

export const DAY = 86_400_000;
const { map: wholeMap } = whole;
const { nodes: table } = wholeMap.network;

/** Columns of numbers by which nodes can be chosen. */
export const numberColumns = Object.keys(held.map.columns).filter(
  (name) => ArrayBuffer.isView(table[name]) && !['community', 'component'].includes(name),
);

export const ALL: Sought = {
  atLeast: 0,
  without: new Set(),
  column: numberColumns[0] ?? '',
  from: null,
  until: null,
  named: '',
  alone: true,
  days: null,
};

export const sought = signal<Sought>(ALL);
export const picked = signal<Picked | null>(null);
export const view = signal<View | null>(null);
export const size = signal<Size>({ width: 800, height: 600 });
/** Where the pointer is, and what is there. */
export const hovered = signal<{ readonly words: string; readonly x: number; readonly y: number } | null>(
  null,
);
/** How ties run that are drawn together, once that is worked out. */
const courses = signal<BundledPaths | null>(null);

const night = matchMedia('(prefers-color-scheme: dark)');
const isNight = signal(night.matches);
night.addEventListener('change', ({ matches }) => (isNight.value = matches));
const isPrinting = signal(false);
addEventListener('beforeprint', () => (isPrinting.value = true));
addEventListener('afterprint', () => (isPrinting.value = false));
/** Paper is printed on paper. */
export const theme = computed(() => (isNight.value && !isPrinting.value ? NIGHT : PAPER));

/** The moments of the period that is looked at. */
const period = computed(() => {
  const { days } = sought.value;
  if (!days || !held.map.days) return null;
  const { first } = held.map.days;
  return { from: first + days[0] * DAY, until: first + (days[1] + 1) * DAY };
});

const shown = computed<Shown>(() => {
  const { atLeast, column, from, until, named, alone } = sought.value;
  const conditions: Condition[] = [];
  if (from !== null || until !== null) conditions.push({ what: 'range', column, from, until, not: false });
  if (named.trim() !== '') conditions.push({ what: 'named', text: named, not: false });
  return {
    ...wholeShown,
    atLeast,
    period: period.value,
    isolates: alone && period.value === null,
    where: { joined: 'and', conditions },
  };
});

const isAll = computed(() => sought.value === ALL);

/** The map as the reader wants it. */
export const map = computed(() => {
  const drawn = courses.value ? { ...wholeMap, courses: courses.value } : wholeMap;
  if (isAll.value) return drawn;
  const show = shown.value;
  const { without } = sought.value;
  if (without.size === 0) return partOfMap(drawn, show);
  const nodes = Array.from(wholeMap.nodes).filter((v) => !without.has(wholeMap.colour[v]));
  const here: Condition = { what: 'chosen', nodes, not: false };
  const where = { joined: 'and' as const, conditions: [...show.where.conditions, here] };
  return partOfMap(drawn, { ...show, where });
});

/** How much of the map is seen, in a sentence. */
export const seenPhrase = computed(() => {
  const { nodes, edges } = map.value;
  const [one, many] = held.map.nodeWords;
  const of = isAll.value ? '' : ` of ${formatCount(wholeMap.nodes.length)}`;
  const phrase = shownPhrase({ ...shown.value, isolates: true });
  const groups = sought.value.without.size > 0 ? ', without some groups' : '';
  return `${formatCount(nodes.length)}${of} ${nodes.length === 1 && of === '' ? one : many} and ${counted(edges.length, 'tie')}${phrase === '' ? '' : `: ${phrase}`}${groups}.`;
});

/** A group that has a colour: what the legend calls it, and its place among the colours. */
interface Group {
  readonly label: string;
  readonly colour: string;
  readonly nodes: number;
  readonly at: number;
}

/** As the legend has them; none where colour is a number. */
export const groups: readonly Group[] = legendSections({
  ...wholeMap,
  description: { ...wholeMap.description, legend: { ...wholeMap.description.legend, without: [] } },
}).flatMap((section) =>
  section.part === 'colour' && section.what === 'groups'
    ? section.groups.map(({ label, colour, nodes }) => ({
        label,
        colour: colour!,
        nodes: nodes ?? 0,
        at: wholeMap.colours.indexOf(colour!),
      }))
    : [],
);

const rows = neighbourRows(graphOf(wholeMap.network.nodeCount, wholeMap.network.edges));

export const focus = computed<Focus | null>(() => {
  const now = picked.value;
  const { network, nodes } = map.value;
  switch (now?.what) {
    case undefined:
      return null;
    case 'node':
      return focusOnNodes(network, rows, [now.node]);
    case 'tie': {
      const [source, target] = endsOf(now.tie);
      return focusOnTies(network, [{ source, target }]);
    }
    case 'group': {
      const around = new Set(Array.from(nodes).filter((v) => wholeMap.colour[v] === now.colour));
      return { nodes: new Set(), around, edges: new Set() };
    }
  }
});

export function endsOf(tie: number): readonly [source: number, target: number] {
  const { edges } = wholeMap.network;
  return [numbersOf(edges, 'source')[tie], numbersOf(edges, 'target')[tie]];
}

export const labels = wholeMap.labels;

/** The value of a node in a column, as a text; empty where it has none. */
export function valueOf(column: string, node: number): string {
  const values = table[column];
  if (ArrayBuffer.isView(values)) return Number.isNaN(Number(values[node])) ? '' : String(values[node]);
  return textsIn(values)[node];
}

/** Milliseconds for which ties are drawn together before others get their turn. */
const TURN = 12;

/** Works out how ties run that are drawn together freely, a little at a time. */
export function bundleTies(): void {
  if (wholeMap.description.ties.form !== 'bundled freely') return;
  const { edges } = wholeMap.network;
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(edges, name));
  const rounds = bundling({ edges: wholeMap.drawn, source, target, weight, x: whole.x, y: whole.y });
  const go = (): void => {
    const until = performance.now() + TURN;
    while (performance.now() < until) {
      const round = rounds.next();
      if (round.done) {
        courses.value = round.value;
        return;
      }
    }
    setTimeout(go);
  };
  setTimeout(go);
}
