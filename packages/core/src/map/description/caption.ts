import type { LayoutSettings, MapDescription, Network, Shown, TitlesByColumn, Weave } from '@pebble/contract';
import { columnTitle } from '../../measures/columns';
import { counted, formatCount, joinWith, periodPhrase } from '../../words/sentence';
import { layoutPhrase } from './layoutWords';
import { formatBound } from '../../words/formatValue';
import type { PreparedMap } from '../scene/prepare';
import { rimPhrase } from '../marks/nodes/rims';
import { conditionPhrase, shownPhrase } from './shownPhrase';
import { kindOf, nodeWords, wovenAs } from '../../weaves';
import { leastOf, periodOf, weighsByCounting } from '../../weaves/words';

export type CaptionControl =
  'show' | 'weave' | 'size' | 'colour' | 'ties' | 'names' | 'outlines' | 'arranged';

/** A piece of the caption; one with a control is the button that changes what it says. */
export interface Phrase {
  readonly text: string;
  readonly control: CaptionControl | null;
}

export interface CaptionInput {
  /** Null for a network that came finished from a file. */
  readonly weave: Weave | null;
  readonly directed: boolean;
  /** What hands changed in the network itself, in words; null where nothing. */
  readonly changed?: string | null;
  readonly description: MapDescription;
  /** What groups are called. */
  readonly titles?: TitlesByColumn;
  /** How it was arranged; by attraction where it is left out. */
  readonly layout?: LayoutSettings | null;
  /** Which nodes are named beside the first in rank, in words. */
  readonly alsoNamed?: string;
  /** Nodes that were moved by hand. */
  readonly moved: number;
  readonly shown: { readonly nodes: number; readonly edges: number };
  readonly hidden: { readonly nodes: number; readonly edges: number };
}

/** The caption of a map as it was prepared. */
export function captionOf(
  network: Pick<Network, 'weave' | 'directed' | 'changed'> & Partial<Pick<Network, 'titles' | 'opened'>>,
  map: PreparedMap,
  { layout, moved }: { readonly layout: LayoutSettings | null; readonly moved: number },
): Phrase[] {
  const { directed, changed, opened, titles } = network;
  const phrases = captionPhrases({
    weave: wovenAs(network),
    directed,
    changed: changed?.words ?? opened?.changed ?? null,
    description: map.description,
    // A map in which people have pseudonyms has other titles than its network.
    titles: map.network.titles ?? titles,
    alsoNamed: map.alsoNamed.phrase,
    layout,
    moved,
    shown: { nodes: map.nodes.length, edges: map.edges.length },
    hidden: { nodes: map.hiddenNodes, edges: map.hiddenEdges },
  });
  // What came finished cannot be woven otherwise here.
  return network.weave ? phrases : phrases.map((one) => (one.control === 'weave' ? plain(one.text) : one));
}

/** The sentence over a map, and under its figure: what it shows, each phrase with its control. */
export function captionPhrases(input: CaptionInput): Phrase[] {
  const { description } = input;
  return [
    ...subject(input),
    ...(input.changed ? [plain(`. Changed by hand: ${input.changed}`)] : []),
    plain('. Size: '),
    { text: columnTitle(description.size.column), control: 'size' },
    plain('. Colour: '),
    { text: colourPhrase(description), control: 'colour' },
    ...(description.shape.column === null
      ? []
      : [plain('. Shape: '), { text: columnTitle(description.shape.column), control: 'colour' as const }]),
    ...(description.shape.pies
      ? [plain('. Inside nodes: '), { text: 'what they are tied to', control: 'colour' as const }]
      : []),
    ...(description.shape.letters !== null && !description.shape.pies
      ? [
          plain('. Inside nodes: '),
          { text: columnTitle(description.shape.letters), control: 'colour' as const },
        ]
      : []),
    ...(description.shape.pictures && !description.shape.pies
      ? [plain('. Pictures: '), { text: 'of nodes that have one', control: 'colour' as const }]
      : []),
    ...(description.shape.rim
      ? [plain('. Rims: '), { text: rimPhrase(description.shape.rim), control: 'colour' as const }]
      : []),
    ...(titledBy(description) === null
      ? []
      : [plain('. Titled: '), { text: columnTitle(titledBy(description)!), control: 'outlines' as const }]),
    ...(outlinedPhrase(description) === ''
      ? []
      : [plain('. Outlined: '), { text: outlinedPhrase(description), control: 'outlines' as const }]),
    plain('. Ties: '),
    { text: tiesPhrase(description), control: 'ties' },
    plain('. Names: '),
    { text: namesPhrase(input), control: 'names' },
    plain('. Arranged '),
    { text: arrangedPhrase(input), control: 'arranged' },
    plain('.'),
  ];
}

function plain(text: string): Phrase {
  return { text, control: null };
}

/** Who is tied by what. */
function subject(input: CaptionInput): Phrase[] {
  const { weave, description, shown, directed } = input;
  const nodes = (one: string, many: string): Phrase => ({
    text: `${counted(shown.nodes, one, many)}${limits(input)}`,
    control: 'show',
  });
  const atLeast = description.show.atLeast;
  if (!weave) {
    const kind = directed ? '' : 'undirected ';
    const ties = `${formatCount(shown.edges)} ${kind}${shown.edges === 1 ? 'tie' : 'ties'}`;
    const least = atLeast > 0 ? ` ${weightPhrase(atLeast)}` : '';
    return [nodes('node', 'nodes'), plain(' and '), { text: `${ties}${least}`, control: 'show' }];
  }
  const counts = weighsByCounting(weave);
  const least = counts ? Math.max(leastOf(weave), atLeast) : leastOf(weave);
  const leastWords = kindOf(weave).least(weave, least);
  const period = timePhrase(weave, description.show);
  return [
    nodes(...nodeWords(weave)),
    plain(' tied when '),
    ...tiedWhen(weave),
    ...(leastWords === '' ? [] : [plain(' '), { text: leastWords, control: 'show' as const }]),
    ...(counts || atLeast === 0
      ? []
      : [plain(', '), { text: weightPhrase(atLeast), control: 'show' as const }]),
    ...(period === null ? [] : [plain(', '), period]),
  ];
}

/** Where weights are no counts, how much a tie must weigh is said beside what was asked of it when it was woven. */
function weightPhrase(atLeast: number): string {
  return `of weight ${formatBound(atLeast)} or more`;
}

/** When; of a part of the time that is shown, which part. Null for a network that has no time. */
function timePhrase(weave: Weave | null, { period }: Shown): Phrase | null {
  const woven = weave && periodOf(weave);
  if (woven === null) return null;
  return period
    ? { text: periodPhrase(period.from, period.until), control: 'show' }
    : { text: woven, control: 'weave' };
}

/** What ties the nodes. */
function tiedWhen(weave: Weave): Phrase[] {
  const kind = kindOf(weave);
  const [before, changes, behind] = kind.tieParts?.(weave) ?? ['', kind.tie(weave), ''];
  return [
    ...(before ? [plain(before)] : []),
    { text: changes, control: 'weave' as const },
    ...(behind ? [plain(behind)] : []),
  ];
}

export function captionText(phrases: readonly Phrase[]): string {
  return phrases.map((phrase) => phrase.text).join('');
}

function limits({ weave, description: { show }, titles, hidden }: CaptionInput): string {
  // The weight of ties and the time have phrases of their own.
  const period = timePhrase(weave, show) ? null : show.period;
  const parts = shownPhrase({ ...show, atLeast: 0, period }, titles);
  const isPale = show.rest === 'pale' && show.where.conditions.length > 0;
  const rest = hidden.nodes > 0 ? ` (${formatCount(hidden.nodes)} ${isPale ? 'pale' : 'not shown'})` : '';
  return (parts === '' ? '' : ` ${parts}`) + rest;
}

function namesPhrase({ description: { names }, titles, alsoNamed: also = '' }: CaptionInput): string {
  if (names.count === 0) return 'none';
  const by = names.column === 'betweenness' ? 'that bridge most' : `with most ${columnTitle(names.column)}`;
  const { joined, conditions } = names.where;
  const among =
    conditions.length > 0
      ? ` of those ${joinWith(
          joined,
          conditions.map((condition) => conditionPhrase(condition, titles)),
        )}`
      : '';
  return `the ${formatCount(names.count)}${among} ${by}${also === '' ? '' : ` and ${also}`}`;
}

function arrangedPhrase({ moved, layout }: CaptionInput): string {
  const phrase = layout ? layoutPhrase(layout) : 'by attraction';
  return moved === 0 ? phrase : `${phrase}, ${formatCount(moved)} moved by hand`;
}

/** "bundled, in the colour of their target": what is not as usual. */
function tiesPhrase({ ties }: MapDescription): string {
  const colour = {
    'by community': '',
    'by target': 'in the colour of their target',
    mixed: 'in the colour of both ends',
    'by kind': 'in the colour of their kind',
    'by number': `coloured by ${ties.number.column}`,
    neutral: 'grey',
  }[ties.colour];
  const { column, count } = ties.names;
  return [
    ...(ties.shown === 'of selection' ? ['only those of what is selected'] : []),
    ties.form,
    ...(colour ? [colour] : []),
    ...(ties.width === 'even' ? ['of one width'] : []),
    ...(ties.opacity === 'by weight' ? ['paler the weaker'] : []),
    ...(column === null || count === 0
      ? []
      : [
          `${column === 'kinds' ? 'messages by kind' : column} written on the ${formatCount(count)} strongest`,
        ]),
  ].join(', ');
}

/** The column whose groups have their titles on the map, without an outline; null for none. */
function titledBy({ regions: { column, form } }: MapDescription): string | null {
  return form === 'title' ? column : null;
}

/** "community and 2 choices of nodes"; empty where nothing is outlined. */
function outlinedPhrase({ regions: { column, form, own, strokes } }: MapDescription): string {
  return [
    ...(column === null || form === 'title' ? [] : [columnTitle(column)]),
    ...(own.length === 0 ? [] : [`${counted(own.length, 'choice')} of nodes`]),
    ...(strokes.length === 0 ? [] : [`${counted(strokes.length, 'line')} drawn by hand`]),
  ].join(' and ');
}

/** "community; pale where sure is below 0.6" */
function colourPhrase({ colour }: MapDescription): string {
  const unsure = colour.unsure
    ? `, ${colour.unsure.how} where ${columnTitle(colour.unsure.column)} is below ${colour.unsure.below}`
    : '';
  return `${columnTitle(colour.column)}${unsure}`;
}
