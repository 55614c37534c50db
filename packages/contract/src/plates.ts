import * as z from 'zod';
import { LayoutSettings, MapDescription, SmallPicture } from './map';

/** More plates could not be told apart in a list. */
export const MOST_PLATES = 500;

export const PlateTitle = z.string().trim().min(1, 'Give the plate a title.').max(120);
export const PlateNote = z.string().trim().max(2000);

/** The part of the map that is seen: its scale, where its middle lies, and the size of the screen, in pixels. */
export const PlateView = z.object({
  scale: z.number().positive().max(1000),
  x: z.number(),
  y: z.number(),
  width: z.number().positive().max(20_000),
  height: z.number().positive().max(20_000),
});
export type PlateView = z.infer<typeof PlateView>;

/** What of the map is selected; nodes by their places in the table. */
export const PlateSelection = z.discriminatedUnion('what', [
  z.object({ what: z.literal('node'), node: z.int().min(0) }),
  z.object({ what: z.literal('nodes'), nodes: z.array(z.int().min(0)).min(1).max(100_000) }),
  z.object({ what: z.literal('tie'), source: z.int().min(0), target: z.int().min(0) }),
  z.object({ what: z.literal('community'), community: z.int() }),
]);
export type PlateSelection = z.infer<typeof PlateSelection>;

/** One state of a map, apart from where its nodes are. */
export const PlateMap = z.object({
  description: MapDescription,
  layout: LayoutSettings.nullable(),
  iterations: z.int().min(0).nullable(),
  /** Nodes that hands moved. */
  moved: z.int().min(0),
  /** Null for the whole network. */
  view: PlateView.nullable(),
  selection: PlateSelection.nullable(),
});
export type PlateMap = z.infer<typeof PlateMap>;

/** What a map shows: how many nodes and ties. */
const ShownCounts = z.object({ nodes: z.int(), edges: z.int() });

/** Whether a plate would look the same today. */
export const PlateToday = z.discriminatedUnion('what', [
  z.object({ what: z.literal('same') }),
  /** Its network has other values, so that other nodes and ties are shown, or the same ones otherwise. */
  z.object({ what: z.literal('other'), shown: ShownCounts }),
  /** Other decisions hold than when its network was woven. */
  z.object({ what: z.literal('stale') }),
  /** Something that it shows is no longer there. */
  z.object({ what: z.literal('not drawn'), why: z.string() }),
  /** Its network was deleted, and can be taken back. */
  z.object({ what: z.literal('no network') }),
]);
export type PlateToday = z.infer<typeof PlateToday>;

/** A kept state of a map, as a list says it. */
export const Plate = z.object({
  id: z.int(),
  title: z.string(),
  note: z.string(),
  network: z.string(),
  networkName: z.string(),
  isCover: z.boolean(),
  /** The step by which it was kept, or brought up to date. */
  step: z.int(),
  keptAt: z.string(),
  /** The sentence over the map when it was kept. */
  caption: z.string(),
  shown: ShownCounts,
  picture: SmallPicture,
  today: PlateToday,
});
export type Plate = z.infer<typeof Plate>;
export const PlateList = z.array(Plate);
