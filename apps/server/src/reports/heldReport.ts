import { FigureQuery, type ReportQuery } from '@pebble/contract';
import { citationOf, paintSvg, referenceLines } from '@pebble/core';
import { composeReport, type Report, type ReportedMap, type ReportPicture } from '@pebble/core/documents';
import { drawFigure, pngOf, type DrawnFigure } from '../exports/exportFigure';
import { methodsOfMaps } from '../methods/readMethods';
import { readNodeNames } from '../people/publishedNames';
import { publishedPortraits } from '../people/publishedPortraits';
import { preparedMap } from '../plates/preparedMap';
import type { Store } from '../storage/open';
import { findNetwork } from '../storage/networks';
import { findPlate } from '../storage/plates';
import { everySource } from '../storage/sources';

/** Pictures are as wide as a page at 300 dots to the inch, with names that can be read there. */
const PICTURE = FigureQuery.parse({ width: 1890, lettering: 1.3, ground: 'white', caption: 'false' });

/** A report, what its pictures are drawn from, and how many people in it have no pseudonym yet. */
export interface HeldReport {
  readonly report: Report;
  readonly figures: readonly DrawnFigure[];
  readonly missing: number;
}

/** Why there can be no report. */
export interface NoReport {
  readonly problem: string;
}

/** What a report holds that was asked for. */
export async function heldReport(store: Store, query: ReportQuery): Promise<HeldReport | NoReport> {
  const maps: (ReportedMap & { readonly figure: DrawnFigure })[] = [];
  let missing = 0;
  for (const asked of await askedMaps(store, query)) {
    const drawn = await reportedMap(store, asked, query);
    if ('problem' in drawn) return drawn;
    maps.push(drawn.map);
    missing = Math.max(missing, drawn.missing);
  }
  const methods = await methodsOfMaps(
    store,
    maps.map(({ network, figure }) => ({ network, description: figure.saved.description })),
    query.methods === 'none' ? 'short' : query.methods,
  );
  const title = query.title || maps[0].title;
  const made = new Date().toISOString();
  const report = composeReport({
    title,
    author: query.author,
    licence: query.licence,
    made,
    sources: await everySource(store),
    maps,
    methods: methods.paragraphs.map((sentences) => sentences.join(' ')),
    references: referenceLines(methods.references),
    cite: citationOf({ author: query.author, title, made, what: 'Report' }),
    parts: {
      portraits: query.portraits === 'true',
      tables: query.tables === 'true',
      methods: query.methods !== 'none',
      limits: query.limits === 'true',
      most: query.most,
    },
  });
  return { report, figures: maps.map(({ figure }) => figure), missing };
}

/** The pictures of a report, in their order. */
export async function drawPictures({ figures }: HeldReport): Promise<ReportPicture[]> {
  const pictures: ReportPicture[] = [];
  for (const figure of figures) {
    const { scene, options } = figure;
    pictures.push({
      svg: paintSvg(scene, options),
      png: await pngOf(figure, PICTURE.resolution),
      width: PICTURE.width,
      height: Math.round((scene.height * PICTURE.width) / scene.width),
    });
  }
  return pictures;
}

interface Asked {
  readonly network: string;
  readonly plate: number | undefined;
  readonly title: string;
  readonly note: string;
}

/** Plates in their order, or the map of a network as it is. */
async function askedMaps(store: Store, { network, plates }: ReportQuery): Promise<Asked[]> {
  if (plates === '') {
    const { name } = (await findNetwork(store, network))!;
    return [{ network, plate: undefined, title: name, note: '' }];
  }
  const found = await Promise.all(plates.split('|').map((id) => findPlate(store, Number(id))));
  return found
    .filter((plate) => plate !== null)
    .map(({ id, network: of, title, note }) => ({ network: of, plate: id, title, note }));
}

async function reportedMap(
  store: Store,
  { network: id, plate, title, note }: Asked,
  { portraits }: ReportQuery,
): Promise<
  NoReport | { readonly map: ReportedMap & { readonly figure: DrawnFigure }; readonly missing: number }
> {
  const network = await findNetwork(store, id);
  if (!network)
    return { problem: `The network of “${title}” was deleted. Take it back, or leave this plate out.` };
  const drawn = await drawOrSay(store, { network: id, query: { ...PICTURE, plate } });
  if (drawn === null)
    return { problem: `“${title}” was never arranged. Open its map once, and then make the report.` };
  if ('problem' in drawn) return { problem: `“${title}” cannot be drawn: ${drawn.problem}` };
  const { map, caption, told } = drawn;
  const { missing, leftOut } = await readNodeNames(store, id);
  const plain = await preparedMap(store, network, drawn.saved.description);
  return {
    missing,
    map: {
      network,
      figure: drawn,
      map,
      title,
      note,
      caption,
      told,
      leftOut,
      portraits: portraits === 'true' ? await publishedPortraits(store, id, plain.labels, map) : [],
    },
  };
}

async function drawOrSay(
  store: Store,
  asked: Parameters<typeof drawFigure>[1],
): Promise<DrawnFigure | NoReport | null> {
  try {
    return await drawFigure(store, asked);
  } catch (error) {
    if (error instanceof RangeError) return { problem: error.message };
    throw error;
  }
}
