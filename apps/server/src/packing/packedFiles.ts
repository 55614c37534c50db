import { createHash } from 'node:crypto';
import { FigureQuery, type Methods, type Network, type PackageQuery, type Step } from '@pebble/contract';
import { bibtex, counted, paintSvg, referenceLines } from '@pebble/core';
import {
  authorsOf,
  citationFile,
  dataPackage,
  provenance,
  roCrate,
  type PackedFile,
  type PackedWork,
} from '@pebble/core/documents';
import { drawFigure, pdfOf, pngOf, type DrawnFigure } from '../exports/exportFigure';
import { fileName } from '../exports/writtenFile';
import { lineOf, stepsOf } from '../methods/methodsOf';
import { methodsOfMaps } from '../methods/readMethods';
import { heldPage } from '../pages/heldPage';
import { pageFile } from '../pages/pageFile';
import { publishedPortraits } from '../people/publishedPortraits';
import { namesGiven, readNodeNames } from '../people/publishedNames';
import { preparedMap } from '../plates/preparedMap';
import { everySource } from '../storage/sources';
import type { Store } from '../storage/open';
import { packedNetwork, withoutPictures, type PackedNetwork } from './packedMap';
import { packedTables, type ToPack } from './packedTables';
import { CHECKSUMS, MAP } from './places';

const JSON_TYPE = 'application/json';
const MARKDOWN = 'text/markdown';

/** What is to go into a package, and what it was made of. */
export interface Packing {
  readonly work: PackedWork;
  readonly packed: PackedNetwork;
  readonly files: readonly ToPack[];
  readonly figures: readonly DrawnFigure[];
  /** Accounts that have no pseudonym yet. */
  readonly missing: number;
  /** What is not in it that belongs to the map. */
  readonly without: readonly string[];
}

/** Everything that goes into a package; null for a map that was never arranged. */
export async function packingOf(
  store: Store,
  network: Network,
  query: PackageQuery,
): Promise<Packing | null> {
  const packed = await packedNetwork(store, network, query);
  if (!packed) return null;
  const names = await readNodeNames(store, network.id);
  const { description } = packed.map.map;
  const plain = await preparedMap(store, network, description);
  const map = namesGiven(names) ? await preparedMap(store, network, description, namesGiven(names)) : plain;
  const work = workOf(packed, query);
  const drawn = await drawnFigures(store, packed);
  const methods = await methodsOfMaps(store, [{ network, description }]);
  const portraits = await publishedPortraits(store, network.id, plain.labels, map);
  const record = await recordOf(store, network, names.names.length > 0);
  const described = [
    ...(await figureFiles(packed, drawn)),
    ...packedTables(packed, portraits),
    ...mapFiles(packed),
    ...(query.page === 'true' ? await pageFiles(store, network, query, work) : []),
    ...methodsFiles(work, methods),
    record,
  ];
  return {
    work,
    packed,
    files: [...described, ...(await describing(store, network, work, methods, described))],
    figures: drawn,
    missing: names.missing,
    without: withoutSaid(packed, network, query),
  };
}

function workOf(
  { network, map, table }: PackedNetwork,
  { title, author, licence }: PackageQuery,
): PackedWork {
  const nodes = counted(network.nodes, 'node');
  return {
    title: title || network.name,
    author,
    licence,
    made: new Date().toISOString(),
    description: `A network of ${nodes} and ${counted(network.edges, 'tie')} with its map${map.plates.length > 0 ? ` and ${counted(map.plates.length, 'plate')}` : ''}: tables with ${counted(Object.keys(table.nodes).length, 'column')} of nodes, figures, how it was made, and the record of its steps. ${network.sentence}`,
  };
}

/** The map as it is, and each of its plates. */
async function drawnFigures(store: Store, { network, plates }: PackedNetwork): Promise<DrawnFigure[]> {
  const drawn: DrawnFigure[] = [];
  for (const plate of [undefined, ...plates.map(({ id }) => id)]) {
    const query = FigureQuery.parse({ ground: 'white', plate });
    const figure = await drawFigure(store, { network: network.id, query }, withoutPictures);
    if (figure) drawn.push(figure);
  }
  return drawn;
}

async function figureFiles({ plates }: PackedNetwork, drawn: readonly DrawnFigure[]): Promise<ToPack[]> {
  const files: ToPack[] = [];
  for (const [i, figure] of drawn.entries()) {
    const name = i === 0 ? 'figures/map' : `figures/plate-${i}`;
    const what = i === 0 ? 'The map' : `The plate “${plates[i - 1].title}”`;
    const { scene, options } = figure;
    files.push(
      {
        place: `${name}.svg`,
        what: `${what}, as SVG.`,
        type: 'image/svg+xml',
        content: Buffer.from(paintSvg(scene, options)),
      },
      {
        place: `${name}.png`,
        what: `${what}, as PNG.`,
        type: 'image/png',
        content: await pngOf(figure, 300),
      },
    );
    if (i === 0)
      files.push({
        place: `${name}.pdf`,
        what: `${what}, as PDF.`,
        type: 'application/pdf',
        content: await pdfOf(figure, 300),
      });
  }
  return files;
}

function mapFiles({ map, positions }: PackedNetwork): ToPack[] {
  return [
    json(
      MAP,
      'How the map is drawn, and its plates: from this and the files beside it Pebble Thread opens it.',
      map,
    ),
    ...[...positions].map(([place, content]) => ({
      place,
      what: 'Where the nodes lie: x and y of each as 32-bit floats, the lower byte first.',
      type: 'application/octet-stream',
      content,
    })),
  ];
}

async function pageFiles(
  store: Store,
  network: Network,
  { author, licence }: PackageQuery,
  { title }: PackedWork,
): Promise<ToPack[]> {
  const query = {
    title,
    author,
    licence,
    columns: '',
    messages: 'none',
    texts: 'whole',
    days: 'true',
    portraits: 'true',
  } as const;
  const made = await heldPage(store, { network: network.id, query });
  if (!made) return [];
  return [
    {
      place: 'page.html',
      what: 'The map as a page that opens in any browser and loads nothing.',
      type: 'text/html',
      content: Buffer.from(pageFile(made.held)),
    },
  ];
}

function methodsFiles({ title }: PackedWork, { paragraphs, references }: Methods): ToPack[] {
  const text = [
    `# How “${title}” was made`,
    ...paragraphs.map((sentences) => sentences.join(' ')),
    ...(references.length > 0
      ? [
          '## References',
          referenceLines(references)
            .map((line) => `- ${line}`)
            .join('\n'),
        ]
      : []),
  ].join('\n\n');
  return [
    {
      place: 'methods.md',
      what: 'How it was made, in sentences, with references.',
      type: MARKDOWN,
      content: Buffer.from(`${text}\n`),
    },
    {
      place: 'references.bib',
      what: 'The works that this cites, as BibTeX.',
      type: 'application/x-bibtex',
      content: Buffer.from(bibtex(references)),
    },
    json(
      'references.json',
      'The same works as CSL-JSON.',
      references,
      'application/vnd.citationstyles.csl+json',
    ),
  ];
}

/** The steps that led to the network, as the logbook has them. What decisions name stays out where people have pseudonyms. */
async function recordOf(store: Store, network: Network, isHidden: boolean): Promise<ToPack> {
  const steps = await stepsOf(store, await lineOf(store, network));
  const told = steps.map((step) => ({
    step: step.id,
    kind: step.kind,
    parameters: isHidden && NAMES_PEOPLE.has(step.kind) ? null : step.parameters,
    seed: step.seed,
    sentence: step.sentence,
    began: step.startedAt,
    ended: step.endedAt,
  }));
  return json('steps.json', 'The steps that led to it with their settings and seeds, in their order.', told);
}

/** Steps whose settings name accounts. */
const NAMES_PEOPLE: ReadonlySet<Step['kind']> = new Set([
  'tidy',
  'take-back-tidy',
  'categorise-by-rule',
  'categorise-by-table',
  'collect-source',
  'name-people',
]);

/** What describes the other files: for people, and by open standards for programs. */
async function describing(
  store: Store,
  network: Network,
  work: PackedWork,
  methods: Methods,
  files: readonly ToPack[],
): Promise<ToPack[]> {
  const known = files.map(({ content, ...one }): PackedFile => ({
    ...one,
    bytes: content.length,
    sha256: sumOf(content),
  }));
  const steps = await stepsOf(store, await lineOf(store, network));
  const sources = (await everySource(store)).filter(({ step }) => steps.some(({ id }) => id === step));
  const trace = provenance({
    title: work.title,
    steps,
    sources,
    authors: authorsOf(work),
    places: files.map(({ place }) => place),
    made: work.made,
  });
  const id =
    fileName(work.title, 'map')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'map';
  const made = [
    json(
      'datapackage.json',
      'Every file and every column, as a Frictionless Data Package.',
      dataPackage(id, work, known),
    ),
    json(
      'ro-crate-metadata.json',
      'The package as an RO-Crate 1.1.',
      roCrate(work, known),
      'application/ld+json',
    ),
    json('provenance.json', 'How it came about, as PROV-JSON (W3C).', trace),
    {
      place: 'CITATION.cff',
      what: 'How to cite it (Citation File Format 1.2.0).',
      type: 'application/yaml',
      content: Buffer.from(citationFile(work, methods.references)),
    },
    ...(work.licence === ''
      ? []
      : [
          {
            place: 'LICENSE.txt',
            what: 'The licence.',
            type: 'text/plain',
            content: Buffer.from(`${work.title}\n\nLicence: ${work.licence}\n`),
          },
        ]),
  ];
  const readme: ToPack = {
    place: 'README.md',
    what: 'What is in the package.',
    type: MARKDOWN,
    content: Buffer.from(readmeOf(work, [...files, ...made])),
  };
  const all = [...files, ...made, readme];
  const sums = all.map(({ place, content }) => `${sumOf(content)}  ${place}\n`).join('');
  return [
    ...made,
    readme,
    {
      place: CHECKSUMS,
      what: 'The SHA-256 of every other file.',
      type: 'text/plain',
      content: Buffer.from(sums),
    },
  ];
}

function readmeOf(
  { title, author, licence, description, made }: PackedWork,
  files: readonly ToPack[],
): string {
  return (
    [
      `# ${title}`,
      description,
      [
        ...(author === '' ? [] : [`- By: ${author}`]),
        `- Licence: ${licence || 'none is given'}`,
        `- Made: ${made} with Pebble Thread`,
      ].join('\n'),
      'Pebble Thread opens this package as a map that can be worked on. Every other program reads the tables, figures and texts as they are. Cells of CSV files that a spreadsheet would run begin with an apostrophe; the Arrow files have them exactly. `sha256sum -c checksums.sha256` checks that nothing was changed.',
      [
        '| File | What it is |',
        '| --- | --- |',
        ...files.map(({ place, what }) => `| ${place} | ${what} |`),
      ].join('\n'),
    ].join('\n\n') + '\n'
  );
}

function withoutSaid(
  { map, network }: PackedNetwork,
  { columns }: Network,
  { page }: PackageQuery,
): string[] {
  const gone = columns.length - map.network.columns.length;
  return [
    'The messages stay in the study: a map that is opened from the package shows no evidence.',
    ...(gone > 0
      ? [`${counted(gone, 'column')} of “${network.name}” that say who somebody is are left out.`]
      : []),
    ...(page === 'true' ? [] : ['The page to share is not in it.']),
  ];
}

function json(place: string, what: string, value: unknown, type = JSON_TYPE): ToPack {
  return { place, what, type, content: Buffer.from(`${JSON.stringify(value, null, 1)}\n`) };
}

function sumOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}
