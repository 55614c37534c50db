import type { Reference } from '@pebble/contract';
import { WORKS } from './works';

/** The works that some texts cite, by author and year. */
export function referencesIn(texts: readonly string[]): Reference[] {
  const all = texts.join('\n');
  const cited = WORKS.filter((work) => isCited(work.cited, all)).map(({ reference }) => reference);
  return cited.sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** Whether a text cites a work: "Newman 2001" is not cited by "Leicht & Newman 2001". */
function isCited(cited: string, text: string): boolean {
  for (let at = text.indexOf(cited); at >= 0; at = text.indexOf(cited, at + 1))
    if (!/(?:&|and|,) $/.test(text.slice(Math.max(0, at - 4), at))) return true;
  return false;
}

/** How something that was made here is cited. */
export function citationOf(work: {
  readonly author: string;
  readonly title: string;
  /** RFC 3339. */
  readonly made: string;
  /** "Network map", "Report". */
  readonly what: string;
}): string {
  const { author, title, made, what } = work;
  return `${author === '' ? '' : `${author} `}(${made.slice(0, 4)}). ${title}. ${what}, made with Pebble Thread.`;
}

/** References for a list, a line each: authors, year, title, and where it stands. */
export function referenceLines(references: readonly Reference[]): string[] {
  return references.map(line);
}

function line(reference: Reference): string {
  const { author, title, volume, issue, page, publisher } = reference;
  const names = author.map(({ family, given }) => `${family}, ${initials(given)}`);
  const authors = names.length > 1 ? `${names.slice(0, -1).join(', ')} & ${names.at(-1)}` : names[0];
  const journal = reference['container-title'];
  const place = [
    journal,
    ...(volume ? [`${volume}${issue ? `(${issue})` : ''}`] : []),
    ...(page ? [page.replace('-', '–')] : []),
    publisher,
  ].filter((part) => part !== undefined);
  return `${authors} (${yearOf(reference)}).${title ? ` ${title}.` : ''} ${place.join(', ')}.`;
}

const yearOf = ({ issued }: Reference): number => issued['date-parts'][0][0];

/** "Vincent D." is "V. D.", "Jean-Loup" "J.-L." */
function initials(given: string): string {
  return given
    .split(' ')
    .map((name) =>
      name
        .split('-')
        .map((part) => `${[...part][0]}.`)
        .join('-'),
    )
    .join(' ');
}

const ENTRY = {
  'article-journal': 'article',
  book: 'book',
  'paper-conference': 'inproceedings',
  report: 'techreport',
} as const;

/** References as a BibTeX file. */
export function bibtex(references: readonly Reference[]): string {
  return references.map(entry).join('\n');
}

function entry(reference: Reference): string {
  const { id, type, author, title, volume, issue, page, publisher } = reference;
  const fields: (readonly [name: string, value: string | undefined])[] = [
    ['author', author.map(({ family, given }) => `${braced(family)}, ${escaped(given)}`).join(' and ')],
    // Braces keep capitals.
    ['title', title && `{${escaped(title)}}`],
    [
      type === 'paper-conference' ? 'booktitle' : 'journal',
      reference['container-title'] && escaped(reference['container-title']),
    ],
    ['year', String(yearOf(reference))],
    ['volume', volume],
    ['number', issue],
    ['pages', page?.replace('-', '--')],
    [type === 'report' ? 'institution' : 'publisher', publisher && escaped(publisher)],
  ];
  const lines = fields.flatMap(([name, value]) => (value === undefined ? [] : [`  ${name} = {${value}},`]));
  return `@${ENTRY[type]}{${id},\n${lines.join('\n')}\n}\n`;
}

/** A family name of several words is one name. */
function braced(family: string): string {
  return family.includes(' ') ? `{${escaped(family)}}` : escaped(family);
}

/** What means something else to TeX; other letters are UTF-8. */
function escaped(text: string): string {
  return text
    .replace(/[&%$#_{}]/g, (sign) => `\\${sign}`)
    .replace(/“/g, '``')
    .replace(/”/g, "''");
}
