import type { Network, Source } from '@pebble/contract';
import type { HeldPortrait } from '../page/heldMap';
import { columnTitle } from '../measures/columns';
import type { PreparedMap } from '../map/scene/prepare';
import { counted, formatCount, periodPhrase } from '../words/sentence';
import { limitSentences } from './limits';
import { groupTable, nodeTable } from './mapTables';
import type { Report, ReportBlock, ReportFigure } from './report';

/** A map as a report shows it, with people as they are called in what is published. */
export interface ReportedMap extends ReportFigure {
  readonly network: Network;
  readonly map: PreparedMap;
  readonly note: string;
  /** Of the groups that give it its colours. */
  readonly portraits: readonly HeldPortrait[];
  /** Columns that do not go out. */
  readonly leftOut: readonly string[];
}

/** What is to stand in a report. */
export interface ReportParts {
  readonly portraits: boolean;
  readonly tables: boolean;
  readonly methods: boolean;
  readonly limits: boolean;
  /** So many nodes are named in a table. */
  readonly most: number;
}

/** What a report is made of. */
export interface ReportFacts extends Pick<Report, 'title' | 'author' | 'made'> {
  readonly licence: string;
  readonly sources: readonly Source[];
  readonly maps: readonly ReportedMap[];
  /** How they were made, by paragraphs. */
  readonly methods: readonly string[];
  /** Works that are cited, a line each. */
  readonly references: readonly string[];
  readonly cite: string;
  readonly parts: ReportParts;
}

const heading = (level: 2 | 3, text: string): ReportBlock => ({ what: 'heading', level, text });
const text = (words: string): ReportBlock => ({ what: 'text', text: words });

/** A report of maps: the material, each map with what it shows, the groups, who stands out, how it was made, and what it cannot tell. */
export function composeReport(facts: ReportFacts): Report {
  const { title, author, made, licence, maps, parts, methods, references, cite } = facts;
  const there = facts.sources.filter(({ removedAt }) => removedAt === null);
  const networks = uniqueBy(maps, ({ network }) => network.id).map(({ network }) => network);
  const limits = limitSentences({ sources: facts.sources, networks, maps });
  return {
    title,
    author,
    made,
    blocks: [
      ...section('Material', materialBlocks(there)),
      ...section(
        maps.length === 1 ? 'The map' : 'The maps',
        maps.flatMap((map) => mapBlocks(map, maps.length > 1)),
      ),
      ...(parts.portraits ? section('The groups', portraitBlocks(maps)) : []),
      ...(parts.tables ? section('In numbers', tableBlocks(maps, parts.most)) : []),
      ...(parts.methods ? section('How it was made', methods.map(text)) : []),
      ...(parts.limits
        ? section('What this cannot tell', limits.length > 0 ? [{ what: 'list', items: limits }] : [])
        : []),
      ...(parts.methods
        ? section('References', references.length > 0 ? [{ what: 'list', items: references }] : [])
        : []),
      ...section('How to cite this', [text(cite), ...(licence === '' ? [] : [text(`Licence: ${licence}`)])]),
    ],
  };
}

/** A part under its heading; none where there is nothing in it. */
function section(title: string, blocks: readonly ReportBlock[]): ReportBlock[] {
  return blocks.length > 0 ? [heading(2, title), ...blocks] : [];
}

function materialBlocks(sources: readonly Source[]): ReportBlock[] {
  if (sources.length === 0) return [];
  const sum = (of: (source: Source) => number): number => sources.reduce((all, one) => all + of(one), 0);
  const from = Math.min(...sources.map(({ report }) => report.from ?? Infinity));
  const until = Math.max(...sources.map(({ report }) => report.until ?? -Infinity));
  const when = from <= until ? `, ${period(from, until)} (UTC)` : '';
  const kept = sum(({ report }) => report.kept);
  const read = sum(({ report }) => report.read);
  const rest =
    read > kept ? ` ${formatCount(read)} were read; why the others are not in it stands below.` : '';
  return [
    text(
      `${counted(kept, 'record')} of ${counted(sources.length, 'source')} ${kept === 1 ? 'was' : 'were'} kept${when}.${rest}`,
    ),
    {
      what: 'table',
      title: 'What the study was gathered from',
      columns: [
        { title: 'Source', isNumber: false },
        ...['Read', 'Kept', 'Left out', 'There already'].map((title) => ({ title, isNumber: true })),
        { title: 'Period', isNumber: false },
      ],
      rows: sources
        .slice(0, MOST_SOURCES)
        .map(({ name, report }) => [
          name,
          formatCount(report.read),
          formatCount(report.kept),
          formatCount(report.skipped),
          formatCount(report.duplicates + report.duplicatesInFile),
          report.from === null || report.until === null ? 'undated' : period(report.from, report.until),
        ]),
    },
    ...(sources.length > MOST_SOURCES
      ? [
          text(
            `${counted(sources.length - MOST_SOURCES, 'further source')} are not in this table; the logbook has all.`,
          ),
        ]
      : []),
  ];
}

/** So many are told of in a table; a study can have thousands. */
const MOST_SOURCES = 50;
const DAY = 86_400_000;

/** The days from the first message to the last. */
function period(from: number, until: number): string {
  return periodPhrase(from - (from % DAY), until - (until % DAY) + DAY);
}

function mapBlocks({ title, caption, told, note }: ReportedMap, hasHeading: boolean): ReportBlock[] {
  return [
    ...(hasHeading ? [heading(3, title)] : []),
    ...(note.trim() === ''
      ? []
      : note
          .trim()
          .split(/\n\s*\n/)
          .map(text)),
    { what: 'figure', figure: { title, caption, told } },
    // The caption stands below the figure already.
    text(told.long.startsWith(caption) ? told.long.slice(caption.length).trim() : told.long),
  ];
}

function portraitBlocks(maps: readonly ReportedMap[]): ReportBlock[] {
  const told = uniqueBy(
    maps.filter(({ portraits }) => portraits.length > 0),
    groupingOf,
  );
  return told.flatMap(({ network, portraits }) => [
    ...(told.length > 1 ? [text(`Of “${network.name}”:`)] : []),
    ...portraits.flatMap(({ title, sentence, lists }) => [
      heading(3, title),
      text(sentence),
      ...(lists.length > 0
        ? [
            {
              what: 'list' as const,
              items: lists.map(({ heading: of, terms }) => `${of}: ${terms.join(', ')}`),
            },
          ]
        : []),
    ]),
  ]);
}

function tableBlocks(maps: readonly ReportedMap[], most: number): ReportBlock[] {
  const ofGroups = uniqueBy(maps, groupingOf).map((one) =>
    groupTable(one.map, `The groups of “${one.title}” by ${columnTitle(one.map.description.colour.column)}`),
  );
  const ofNodes = uniqueBy(maps, ({ network, map }) => `${network.id} ${map.description.size.column}`).map(
    (one) =>
      nodeTable(one.map, {
        title: (by) => `The first of “${one.title}” by ${by}`,
        most,
        leftOut: one.leftOut,
      }),
  );
  return [...ofGroups, ...ofNodes].filter((table) => table !== null);
}

/** The same for two maps that tell of the same groups. */
const groupingOf = ({ network, map }: ReportedMap): string =>
  `${network.id} ${map.description.colour.column}`;

function uniqueBy<T>(all: readonly T[], key: (one: T) => string): T[] {
  return [...new Map([...all].reverse().map((one) => [key(one), one])).values()].reverse();
}
