import type { FullPortrait, PortraitFormat, PortraitList, PortraitThing, Term } from '@pebble/contract';
import { escapeXml, plainMarkdown } from '../../formats/markup';
import { saveableCsv } from '../../formats/writeCsv';
import { dayPhrase, formatCount } from '../../words/sentence';
import { formatValue } from '../../words/formatValue';

/** Portraits with what stands round them. */
export interface WrittenPortraits {
  /** Of the network. */
  readonly name: string;
  readonly list: PortraitList;
  readonly portraits: readonly FullPortrait[];
  /** Of all groups, by their places. */
  readonly titles: readonly string[];
  readonly directed: boolean;
}

/** Terms that are written of each list for readers; tables have all. */
const TERMS = 12;

const THINGS: Readonly<Record<PortraitThing, string>> = {
  hashtag: 'Hashtags',
  word: 'Words',
  domain: 'Domains',
  link: 'Links',
  name: 'Names',
  emoji: 'Emoji',
  language: 'Languages',
  code: 'Codes',
};

/** Portraits as a text of a format: for readers, or as a table with a row for each number. */
export function writePortraits(format: PortraitFormat, written: WrittenPortraits): string {
  switch (format) {
    case 'md':
      return markdown(written);
    case 'html':
      return html(written);
    case 'csv':
      return csv(written);
  }
}

/** A part of a portrait: a heading with lines below it. */
interface Part {
  readonly heading: string;
  readonly lines: readonly string[];
}

interface Section {
  readonly title: string;
  readonly sentence: string;
  readonly parts: readonly Part[];
}

function sectionsOf(written: WrittenPortraits): Section[] {
  return written.portraits.map((portrait) => ({
    title: portrait.notes.title || portrait.suggested,
    sentence: portrait.sentence,
    parts: partsOf(portrait, written).filter(({ lines }) => lines.length > 0),
  }));
}

function partsOf(portrait: FullPortrait, { list, titles, directed }: WrittenPortraits): Part[] {
  const { names, notes, quoted } = portrait;
  const nodes = (all: FullPortrait['addressed']): string[] =>
    all.map(({ node, value }) => `${names[node]} (${formatValue(value)})`);
  const terms = (thing: PortraitThing): string[] =>
    portrait.things[thing].typical
      .slice(0, TERMS)
      .map((term) => termPhrase(term, portrait.messages, list.messages));
  const byId = new Map(quoted.map((message) => [message.id, message]));
  return [
    { heading: directed ? 'Most addressed' : 'Most ties', lines: nodes(portrait.addressed) },
    { heading: 'Most active', lines: nodes(portrait.active) },
    { heading: 'Ways out to other groups', lines: nodes(portrait.waysOut) },
    { heading: 'From elsewhere, tied to most of it', lines: nodes(portrait.outside) },
    ...(Object.keys(THINGS) as PortraitThing[]).map((thing) => ({
      heading: `${THINGS[thing]} that are typical`,
      lines: terms(thing),
    })),
    {
      heading: 'Unusually active on',
      lines: portrait.unusual.map((day) => dayPhrase(day, true)),
    },
    {
      heading: 'Ties to other groups',
      lines: portrait.ties.slice(0, TERMS).map(({ group, out, into }) => {
        const title = group === null ? 'all smaller groups' : titles[group];
        return directed
          ? `${title}: ${formatValue(out)} out, ${formatValue(into)} in`
          : `${title}: ${formatValue(out)}`;
      }),
    },
    {
      heading: 'Quotations',
      lines: notes.quotations.flatMap((id) => {
        const message = byId.get(id);
        if (!message) return [];
        const when = message.time === null ? 'no date' : dayPhrase(message.time, true);
        return `“${message.text}” (${message.author.handle}, ${when})`;
      }),
    },
    { heading: 'Memo', lines: notes.memo.split('\n').filter((line) => line.trim() !== '') },
  ];
}

/** "#moths: 48 of 310 messages here, 12 of 8,690 elsewhere, 31 authors, log-likelihood 123.4" */
function termPhrase({ label, messages, elsewhere, authors, score }: Term, own: number, all: number): string {
  return (
    `${label}: ${formatCount(messages)} of ${formatCount(own)} messages here, ` +
    `${formatCount(elsewhere)} of ${formatCount(all - own)} elsewhere, ${formatCount(authors)} authors, log-likelihood ${score.toFixed(1)}`
  );
}

/** How the lists were made. */
function howPhrase({ list: { column, settings, outOfDate } }: WrittenPortraits): string {
  return (
    `Groups by “${column}”. Typical is what stands in a clearly larger share of a group’s messages than elsewhere ` +
    `(log-likelihood above 10.83; Dunning 1993; Rayson & Garside 2000), written by at least ${formatCount(settings.leastAuthors)} of its authors.` +
    (outOfDate ? ` ${outOfDate}` : '')
  );
}

function markdown(written: WrittenPortraits): string {
  const sections = sectionsOf(written).flatMap(({ title, sentence, parts }) => [
    `## ${plainMarkdown(title)}`,
    plainMarkdown(sentence),
    ...parts.flatMap(({ heading, lines }) => [
      `### ${heading}`,
      lines.map((line) => `- ${plainMarkdown(line)}`).join('\n'),
    ]),
  ]);
  return (
    [`# ${plainMarkdown(written.name)}: portraits`, plainMarkdown(howPhrase(written)), ...sections].join(
      '\n\n',
    ) + '\n'
  );
}

function html(written: WrittenPortraits): string {
  const title = escapeXml(`${written.name}: portraits`);
  const sections = sectionsOf(written).map(
    ({ title: heading, sentence, parts }) =>
      `<section>\n<h2>${escapeXml(heading)}</h2>\n<p>${escapeXml(sentence)}</p>\n${parts
        .map(
          (part) =>
            `<h3>${escapeXml(part.heading)}</h3>\n<ul>\n${part.lines.map((line) => `<li dir="auto">${escapeXml(line)}</li>`).join('\n')}\n</ul>`,
        )
        .join('\n')}\n</section>`,
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'">
<title>${title}</title>
<style>
body { font: 16px/1.5 Georgia, serif; color: #1e2a32; background: #fbfaf6; max-width: 72ch; margin: 2em auto; padding: 0 1em; }
h3 { font-size: 1em; margin: 1em 0 0.2em; }
ul { margin: 0; padding-left: 1.2em; }
section { border-top: 1px solid #ddd8cb; margin-top: 2em; }
</style>
</head>
<body>
<h1>${title}</h1>
<p>${escapeXml(howPhrase(written))}</p>
${sections.join('\n')}
</body>
</html>
`;
}

function csv({ portraits, list, titles }: WrittenPortraits): string {
  const rows: (string | number)[][] = portraits.flatMap((portrait) => {
    const of = [portrait.group, portrait.notes.title || portrait.suggested];
    const row = (what: string, label: string, ...numbers: (number | null)[]): (string | number)[] => [
      ...of,
      what,
      label,
      ...[0, 1, 2, 3, 4].map((at) => numbers[at] ?? ''),
    ];
    const named = (what: string, all: FullPortrait['addressed']): (string | number)[][] =>
      all.map(({ node, value }) => row(what, portrait.names[node], value));
    return [
      row('nodes', '', portrait.nodes),
      row('messages', '', portrait.messages, list.messages - portrait.messages, portrait.authors),
      row('tie weight within', '', portrait.within),
      row('tie weight out', '', portrait.out),
      row('tie weight in', '', portrait.into),
      ...named('addressed', portrait.addressed),
      ...named('active', portrait.active),
      ...named('way out', portrait.waysOut),
      ...named('from elsewhere', portrait.outside),
      ...(Object.keys(THINGS) as PortraitThing[]).flatMap((thing) =>
        (['typical', 'used', 'missing'] as const).flatMap((view) =>
          portrait.things[thing][view].map(({ label, messages, elsewhere, authors, score, times }) =>
            row(`${view} ${thing}`, label, messages, elsewhere, authors, score, times),
          ),
        ),
      ),
      ...portrait.kinds.map(({ kind, messages, elsewhere }) => row('kind', kind, messages, elsewhere)),
      ...(portrait.answers.all > 0
        ? [
            row(
              'answers',
              'within the group',
              portrait.answers.within,
              portrait.answers.all - portrait.answers.within,
            ),
          ]
        : []),
      ...portrait.days.map(({ day, messages, all }) =>
        row('day', new Date(day).toISOString().slice(0, 10), messages, all - messages),
      ),
      ...portrait.ties.map(({ group, out, into }) =>
        row('ties to', group === null ? 'all smaller groups' : titles[group], out, into),
      ),
    ];
  });
  return `\ufeff${saveableCsv([HEADINGS, ...rows])}`;
}

const HEADINGS = [
  'group',
  'title',
  'what',
  'label',
  'here',
  'elsewhere',
  'authors',
  'log_likelihood',
  'times_as_often',
];
