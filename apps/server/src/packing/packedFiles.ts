import { FigureQuery, type Methods, type Network, type PackageQuery, type Step } from '@pebble/contract';
import { bibtex, counted, methodsMarkdown, paintSvg, routineOf } from '@pebble/core';
import type { PackedWork } from '@pebble/core/documents';
import { drawFigure, pdfOf, pngOf, type DrawnFigure } from '../exports/exportFigure';
import { MAP } from '../files/packageFile';
import { lineOf, stepsOf } from '../methods/methodsOf';
import { methodsOfMaps } from '../methods/readMethods';
import { heldPage } from '../pages/heldPage';
import { pageFile } from '../pages/pageFile';
import { publishedPortraits } from '../people/publishedPortraits';
import { namesGiven, readNodeNames } from '../people/publishedNames';
import { preparedMap } from '../plates/preparedMap';
import { everySource } from '../storage/sources';
import { listSteps } from '../storage/steps';
import type { Store } from '../storage/open';
import { packedNetwork, withoutPictures, type PackedNetwork } from './packedMap';
import { describer, json, text, type Describer } from './describedFiles';
import { packedTables, type ToPack } from './packedTables';

/** What is to go into a package, and what it was made of. */
export interface Packing {
  readonly work: PackedWork;
  readonly packed: PackedNetwork;
  readonly files: readonly ToPack[];
  /** What describes them, once their bytes are known. */
  readonly describe: Describer;
  readonly figures: readonly Drawing[];
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
  const drawings = drawingsOf(store, packed);
  const methods = await methodsOfMaps(store, [{ network, description }]);
  const portraits = await publishedPortraits(store, network.id, plain.labels, map);
  const steps = await stepsOf(store, await lineOf(store, network));
  const sources = (await everySource(store)).filter(({ step }) => steps.some(({ id }) => id === step));
  return {
    work,
    packed,
    files: [
      ...figureFiles(packed, drawings),
      ...packedTables(packed, portraits),
      ...mapFiles(packed),
      ...(query.page === 'true' ? [pageFileOf(store, network, query, work)] : []),
      ...methodsFiles(work, methods),
      recordFile(steps, names.names.length > 0),
      ...routineFile(work, await listSteps(store), { steps, network, isHidden: names.names.length > 0 }),
    ],
    describe: describer(work, methods, { steps, sources }),
    figures: drawings,
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

/** Draws a figure when it is needed first, and not again. */
type Drawing = () => Promise<DrawnFigure>;

/** The map as it is, and each of its plates; what cannot be drawn is none of them. */
function drawingsOf(store: Store, { network, plates }: PackedNetwork): Drawing[] {
  return [undefined, ...plates.map(({ id }) => id)].map((plate) => {
    const query = FigureQuery.parse({ ground: 'white', plate });
    let drawn: ReturnType<typeof drawFigure> | undefined;
    return async () =>
      (await (drawn ??= drawFigure(store, { network: network.id, query }, withoutPictures)))!;
  });
}

function figureFiles({ plates }: PackedNetwork, drawings: readonly Drawing[]): ToPack[] {
  return drawings.flatMap((draw, i) => {
    const name = i === 0 ? 'figures/map' : `figures/plate-${i}`;
    const what = i === 0 ? 'The map' : `The plate “${plates[i - 1].title}”`;
    const svg: ToPack = {
      place: `${name}.svg`,
      what: `${what}, as SVG.`,
      type: 'image/svg+xml',
      content: async () => {
        const { scene, options } = await draw();
        return Buffer.from(paintSvg(scene, options));
      },
    };
    if (i > 0) return [svg];
    return [
      svg,
      {
        place: `${name}.png`,
        what: `${what}, as PNG.`,
        type: 'image/png',
        content: async () => pngOf(await draw(), 300),
      },
      {
        place: `${name}.pdf`,
        what: `${what}, as PDF.`,
        type: 'application/pdf',
        content: async () => pdfOf(await draw(), 300),
      },
    ];
  });
}

function mapFiles({ map, positions }: PackedNetwork): ToPack[] {
  return [
    json(
      MAP,
      'How the map is drawn, and its plates: from this and the files beside it Pebble Thread opens it.',
      map,
    ),
    ...[...positions].map(([place, bytes]) => ({
      place,
      what: 'Where the nodes lie: x and y of each as 32-bit floats, the lower byte first.',
      type: 'application/octet-stream',
      content: () => bytes,
    })),
  ];
}

function pageFileOf(
  store: Store,
  network: Network,
  { author, licence }: PackageQuery,
  { title }: PackedWork,
): ToPack {
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
  return {
    place: 'page.html',
    what: 'The map as a page that opens in any browser and loads nothing.',
    type: 'text/html',
    content: async () => Buffer.from(pageFile((await heldPage(store, { network: network.id, query }))!.held)),
  };
}

function methodsFiles({ title }: PackedWork, methods: Methods): ToPack[] {
  const { references } = methods;
  return [
    text('methods.md', 'How it was made, in sentences, with references.', methodsMarkdown(title, methods)),
    text(
      'references.bib',
      'The works that this cites, as BibTeX.',
      bibtex(references),
      'application/x-bibtex',
    ),
    json(
      'references.json',
      'The same works as CSL-JSON.',
      references,
      'application/vnd.citationstyles.csl+json',
    ),
  ];
}

/** The steps that led to the network, as the logbook has them. What decisions name stays out where people have pseudonyms. */
function recordFile(steps: readonly Step[], isHidden: boolean): ToPack {
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

/** What of these steps can be run again on other files, with what the map shows; nothing where none can. */
function routineFile(
  { title }: PackedWork,
  newestFirst: readonly Step[],
  { steps, network, isHidden }: { steps: readonly Step[]; network: Network; isHidden: boolean },
): ToPack[] {
  const logbook = [...newestFirst].reverse().filter(({ kind }) => !isHidden || !NAMES_PEOPLE.has(kind));
  const shown = logbook.findLast(
    ({ kind, parameters }) => kind === 'describe-map' && parameters['network'] === network.id,
  );
  const chosen = new Set([...steps.map(({ id }) => id), ...(shown ? [shown.id] : [])]);
  const { routine } = routineOf(logbook, { name: title.slice(0, 120), steps: chosen });
  if (routine.steps.length === 0) return [];
  return [
    json('routine.json', 'What of these steps can be run again on other files, as a routine.', routine),
  ];
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

function withoutSaid(
  { map, network, left }: PackedNetwork,
  { columns }: Network,
  { page }: PackageQuery,
): string[] {
  const gone = columns.length - map.network.columns.length;
  return [
    'The messages stay in the study: a map that is opened from the package shows no evidence.',
    ...(gone > 0
      ? [`${counted(gone, 'column')} of “${network.name}” that say who somebody is are left out.`]
      : []),
    ...left.map((title) => `The plate “${title}” cannot be drawn any more and is not in it.`),
    ...(page === 'true' ? [] : ['The page to share is not in it.']),
  ];
}
