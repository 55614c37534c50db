import * as z from 'zod';
import { GroupingInfo } from './groups';
import { LayoutSettings, MapDescription } from './map';
import { ColumnInfo } from './network';
import { WholeNetwork } from './measures';
import { Leaks } from './people';
import { PlateMap, PlateNote, PlateTitle } from './plates';
import { TitlesByColumn } from './portraits';
import { Weave } from './weave';

const words = z.string().trim().max(300).default('');

/** What stands in a package beside the network and its map. */
export const PackageQuery = z.object({
  title: words,
  author: words,
  licence: words,
  /** Whether the page to share is in it. */
  page: z.enum(['true', 'false']).default('true'),
  /** Whether the plates of the network are in it. */
  plates: z.enum(['true', 'false']).default('true'),
});
export type PackageQuery = z.infer<typeof PackageQuery>;

/** What a package would be, before it is saved. */
export const PackageCheck = z.object({
  /** Its files, by their places. */
  files: z.array(z.object({ place: z.string(), what: z.string() })),
  /** What is not in it that belongs to the map, in sentences. */
  without: z.array(z.string()),
  /** Why it cannot be saved; null where it can. */
  problem: z.string().nullable(),
  leaks: Leaks,
});
export type PackageCheck = z.infer<typeof PackageCheck>;

export const PACKAGE_MAP_FORMAT = 'pebble-thread-map';
export const PACKAGE_MAP_VERSION = 1;

/** The network and the map of a package, so that they can be opened again; tables and places lie beside it. */
export const PackageMap = z.object({
  format: z.literal(PACKAGE_MAP_FORMAT),
  version: z.int().min(1).max(PACKAGE_MAP_VERSION),
  network: z.object({
    name: z.string().min(1).max(200),
    /** How it was woven; null where it came finished from a file. */
    weave: Weave.nullable(),
    /** What hands changed in it, in words; null where nothing was. */
    changed: z.string().max(2000).nullable(),
    directed: z.boolean(),
    sentence: z.string().max(10_000),
    nodes: z.int().min(0),
    edges: z.int().min(0),
    messages: z.int().min(0),
    /** RFC 3339. */
    createdAt: z.string().max(40),
    columns: z.array(ColumnInfo).max(10_000),
    groupings: z.record(z.string(), GroupingInfo),
    measures: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
    whole: WholeNetwork.nullable(),
    titles: TitlesByColumn,
  }),
  map: z.object({
    description: MapDescription,
    layout: LayoutSettings.nullable(),
    iterations: z.int().min(0).nullable(),
    moved: z.int().min(0),
    /** Where its places lie: x and y of every node as 32-bit floats, little-endian. */
    positions: z.string(),
  }),
  plates: z
    .array(z.object({ title: PlateTitle, note: PlateNote, map: PlateMap, positions: z.string() }))
    .max(500),
});
export type PackageMap = z.infer<typeof PackageMap>;
