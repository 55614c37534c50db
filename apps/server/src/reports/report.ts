import type { ReportCheck, ReportFormat, ReportQuery } from '@pebble/contract';
import { reportDocx, reportMarkdown, type Report, type ReportBlock } from '@pebble/core/documents';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { zipOf } from '../files/zip';
import { hiddenPeople, NO_LEAKS, told } from '../people/identities';
import { withoutPseudonyms } from '../people/publishedNames';
import type { Store } from '../storage/open';
import { drawPictures, heldReport, type HeldReport, type NoReport } from './heldReport';
import { reportPage } from './reportFile';

/** What a report would hold, and where people can be found in it. */
export async function checkReport(store: Store, query: ReportQuery): Promise<ReportCheck> {
  const made = await heldReport(store, query);
  if ('problem' in made) return { ...NOTHING, problem: made.problem };
  const { blocks } = made.report;
  const texts = textsOf(made.report);
  const finder = await hiddenPeople(store);
  return {
    headings: blocks.flatMap((block) => (block.what === 'heading' && block.level === 2 ? [block.text] : [])),
    words: texts.reduce((sum, { text }) => sum + text.split(/\s+/).filter((word) => word !== '').length, 0),
    figures: made.figures.length,
    tables: blocks.filter(({ what }) => what === 'table').length,
    problem: problemOf(made),
    leaks: finder
      ? told([...texts, ...lettersOf(made)].flatMap(({ place, text }) => finder.find(place, text)))
      : NO_LEAKS,
  };
}

const NOTHING: ReportCheck = {
  headings: [],
  words: 0,
  figures: 0,
  tables: 0,
  problem: null,
  leaks: NO_LEAKS,
};

/** A report as a file, or why there can be none. */
export async function writeReport(
  store: Store,
  { format, query }: { readonly format: ReportFormat; readonly query: ReportQuery },
): Promise<ExportedFile | NoReport> {
  const made = await heldReport(store, query);
  if ('problem' in made) return made;
  const problem = problemOf(made);
  if (problem !== null) return { problem };
  const name = fileName(made.report.title, 'report');
  const { bytes, ending, type } = await WRITERS[format](made);
  return { path: writeBytes(store.folder, bytes), name: `${name}${ending}`, type };
}

interface Written {
  readonly bytes: Uint8Array;
  /** Behind the title. */
  readonly ending: string;
  readonly type: string;
}

const WRITERS: Readonly<Record<ReportFormat, (made: HeldReport) => Promise<Written>>> = {
  html: async (made) => ({
    bytes: Buffer.from(reportPage(made.report, await drawPictures(made))),
    ending: '.html',
    type: 'text/html; charset=utf-8',
  }),
  md: async (made) => {
    const pictures = await drawPictures(made);
    const names = pictures.map((_, i) => `figures/figure-${i + 1}`);
    const text = reportMarkdown(
      made.report,
      names.map((name) => `${name}.png`),
    );
    const files = pictures.flatMap(({ svg, png }, i) => [
      { place: `${names[i]}.png`, content: png },
      { place: `${names[i]}.svg`, content: Buffer.from(svg) },
    ]);
    const bytes = await zipOf(
      [{ place: 'report.md', content: Buffer.from(text) }, ...files],
      made.report.made,
    );
    return { bytes, ending: ' (Markdown).zip', type: 'application/zip' };
  },
  docx: async (made) => ({
    bytes: await reportDocx(made.report, await drawPictures(made)),
    ending: '.docx',
    type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  }),
};

function problemOf({ missing }: HeldReport): string | null {
  return missing > 0 ? withoutPseudonyms(missing) : null;
}

interface Placed {
  readonly place: string;
  readonly text: string;
}

/** Every text of a report, with its place. */
function textsOf({ title, author, blocks }: Report): Placed[] {
  let place = 'report';
  return [
    { place: 'title', text: title },
    { place: 'author', text: author },
    ...blocks.flatMap((block) => {
      if (block.what === 'heading') place = block.level === 2 ? block.text : place;
      return wordsOf(block).map((text) => ({ place, text }));
    }),
  ];
}

function wordsOf(block: ReportBlock): readonly string[] {
  switch (block.what) {
    case 'heading':
    case 'text':
      return [block.text];
    case 'list':
      return block.items;
    case 'table':
      return [block.title, ...block.columns.map(({ title }) => title), ...block.rows.flat()];
    case 'figure': {
      const { title, caption, told: told_ } = block.figure;
      return [title, caption, told_.short, told_.long];
    }
  }
}

/** What is written in the pictures. */
function lettersOf({ figures }: HeldReport): Placed[] {
  return figures.flatMap(({ scene }) =>
    [...scene.texts, ...scene.legend.texts].map(({ text }) => ({ place: 'a figure', text })),
  );
}
