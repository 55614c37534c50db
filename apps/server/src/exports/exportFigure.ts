import { readFile } from 'node:fs/promises';
import type { FigureFormat, FigureQuery, MapDescription, Network, SavedMap } from '@pebble/contract';
import {
  buildScene,
  bundling,
  captionOf,
  captionText,
  figureSize,
  figureText,
  fitView,
  marginFor,
  numbersOf,
  paintSvg,
  RASTER_FROM,
  themeOn,
  TieRaster,
  tiesIn,
  withResolution,
  withWords,
  type BundledPaths,
  type FigureOptions,
  type FigureText,
  type Letters,
  type PreparedMap,
  type Scene,
} from '@pebble/core';
import { findNetwork, readMap, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { findPlate, platePositions } from '../storage/plates';
import { fromPlacesBytes } from '../storage/placesBytes';
import { preparedMap } from '../plates/preparedMap';
import { namesGiven, readNodeNames } from '../people/publishedNames';
import { lettersFor } from './fontFiles';
import { fileName, writeBytes, writeParts, type ExportedFile } from './writtenFile';

/** The page for which names and legend are set, in pixels of a screen. */
const PAGE = { width: 1100, height: 760 };
const TYPE: Readonly<Record<FigureFormat, string>> = {
  svg: 'image/svg+xml',
  png: 'image/png',
  pdf: 'application/pdf',
};

/** A map drawn as a figure, with people as they are called in what is published. */
export interface DrawnFigure {
  readonly network: Network;
  readonly map: PreparedMap;
  readonly saved: Drawn['saved'];
  readonly scene: Scene;
  readonly caption: string;
  readonly told: FigureText;
  readonly options: FigureOptions & { readonly letters: Letters; readonly told: FigureText };
}

/**
 * A map as a figure: the whole network as it was last arranged and described, with its legend, its caption and letters as shapes. Null for
 * one that was never arranged.
 */
export async function exportFigure(
  store: Store,
  asks: { readonly network: string; readonly format: FigureFormat; readonly query: FigureQuery },
): Promise<ExportedFile | null> {
  const { format, query } = asks;
  const figure = await drawFigure(store, asks);
  if (!figure) return null;
  const { network, scene, options } = figure;
  const name = `${fileName(network.name, 'map')}.${format}`;
  const type = TYPE[format];
  if (format === 'svg') return { path: writeParts(store.folder, [paintSvg(scene, options)]), name, type };
  const bytes =
    format === 'png' ? await pngOf(figure, query.resolution) : await pdfOf(figure, query.resolution);
  return { path: writeBytes(store.folder, bytes), name, type };
}

/**
 * Draws a map as it is, or as a plate keeps it; null where it was never arranged. Throws RangeError for a column that is no longer there.
 * @param change of its description
 */
export async function drawFigure(
  store: Store,
  { network: id, query }: { readonly network: string; readonly query: FigureQuery },
  change: (description: MapDescription) => MapDescription = (description) => description,
): Promise<DrawnFigure | null> {
  const drawn = query.plate === undefined ? await openMap(store, id) : await plateMap(store, query.plate);
  const network = drawn && (await findNetwork(store, id));
  if (!network) return null;
  const { saved, positions } = drawn;
  const published = await readNodeNames(store, network.id);
  const prepared = await preparedMap(store, network, change(saved.description), namesGiven(published));
  const { x, y } = fromPlacesBytes(positions);
  const map = { ...prepared, courses: coursesOf(prepared, x, y) };
  const scene = sceneOf(map, x, y, query);
  const caption = captionText(captionOf(network, map, { layout: saved.layout, moved: saved.moved }));
  const told = figureText(network, map, caption);
  const options = {
    width: query.width,
    caption: query.caption === 'true' ? caption : undefined,
    ink: themeOn(query.ground).ink,
    transparent: query.ground === 'none',
    letters: await lettersFor([...scene.texts, ...scene.legend.texts, { text: caption, face: 'serif' }]),
    told,
    ties: tiesIn(scene) >= RASTER_FROM ? await tiePicture(scene, query.width / scene.width) : null,
  };
  return { network, map, saved, scene, caption, told, options };
}

export async function pdfOf(
  { network, scene, options }: DrawnFigure,
  resolution: number,
): Promise<Uint8Array> {
  const { paintPdf } = await import('@pebble/core/pdf');
  return paintPdf(scene, {
    ...options,
    resolution,
    readFont: (address) => readFile(address),
    title: network.name,
    made: new Date(network.createdAt),
  });
}

/** A figure as PNG, which says what it shows to those who cannot see it. */
export async function pngOf({ scene, options }: DrawnFigure, resolution: number): Promise<Uint8Array> {
  const { width } = figureSize(scene, options);
  // Read when it is needed first, as all that only figures need.
  const { Resvg } = await import('@resvg/resvg-js');
  const drawn = new Resvg(paintSvg(scene, options), {
    fitTo: { mode: 'width', value: width },
    font: { loadSystemFonts: false },
  });
  const { short, long } = options.told;
  return withWords(withResolution(drawn.render().asPng(), resolution), 'Description', `${short} ${long}`);
}

/** What is drawn, and where its nodes are; null where they were never arranged. */
interface Drawn {
  readonly saved: Pick<SavedMap, 'description' | 'layout' | 'moved'>;
  readonly positions: Buffer;
}

async function openMap(store: Store, network: string): Promise<Drawn | null> {
  const positions = await readPositions(store, network);
  return positions && { saved: await readMap(store, network), positions };
}

async function plateMap(store: Store, id: number): Promise<Drawn | null> {
  const plate = await findPlate(store, id);
  const positions = plate && (await platePositions(store, id));
  return positions && { saved: plate.map, positions };
}

function sceneOf(
  map: PreparedMap,
  x: Float32Array,
  y: Float32Array,
  { lettering, ground }: FigureQuery,
): Scene {
  // The picture is made for a smaller page and enlarged: places stay, what has a size of its own grows.
  const size = { width: PAGE.width / lettering, height: PAGE.height / lettering };
  const view = fitView(x, y, map.radius, map.nodes, size, marginFor(map.description.legend.corner));
  return buildScene({ map, x, y, view, size, theme: themeOn(ground), focus: null });
}

/** How ties run that are drawn together freely; null for others. */
function coursesOf(map: PreparedMap, x: ArrayLike<number>, y: ArrayLike<number>): BundledPaths | null {
  if (map.description.ties.form !== 'bundled freely') return null;
  const { edges } = map.network;
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(edges, name));
  const rounds = bundling({ edges: map.drawn, source, target, weight, x, y });
  for (;;) {
    const round = rounds.next();
    if (round.done) return round.value;
  }
}

/** Ties that are too many to be lines each, as the address of a PNG with its data. */
async function tiePicture(scene: Scene, ratio: number): Promise<string> {
  const { encode } = await import('fast-png');
  const { width, height, rgba } = new TieRaster().paint(scene, ratio);
  const png = encode({ width, height, data: rgba, channels: 4, depth: 8 });
  return `data:image/png;base64,${Buffer.from(png).toString('base64')}`;
}
