import * as z from 'zod';
import { pageOf } from './page';
import { GroupingInfo } from './groups';
import { Shown } from './map';
import { WholeNetwork } from './measures';
import { TitlesByColumn } from './portraits';
import { Weave } from './weave';

export const ColumnInfo = z.object({
  name: z.string(),
  title: z.string(),
  type: z.enum(['number', 'category', 'text']),
  how: z.string(),
  /** The part of the network that it was computed of; without it the whole. */
  shown: Shown.optional(),
});
export type ColumnInfo = z.infer<typeof ColumnInfo>;

const node = z.int().min(0);
const someNodes = z.array(node).min(1, 'Choose nodes first.').max(100_000);

/** A change that hands make to a network; nodes by their places in its table, those that are added go on from there. */
export const NetworkChange = z.discriminatedUnion('what', [
  z.object({ what: z.literal('without-nodes'), nodes: someNodes }),
  z.object({
    what: z.literal('without-ties'),
    ties: z
      .array(z.object({ source: node, target: node }))
      .min(1)
      .max(100_000),
  }),
  z.object({
    what: z.literal('new-node'),
    name: z.string().trim().min(1, 'Give the node a name.').max(200),
  }),
  /** Where the two are tied already, the weight is added. */
  z.object({
    what: z.literal('new-tie'),
    source: node,
    target: node,
    weight: z.number().positive('A tie has a weight above 0.').max(1e9),
  }),
  /** Nodes that become one, which keeps what is known of one of them. */
  z.object({ what: z.literal('merged'), nodes: someNodes, into: node }),
]);
export type NetworkChange = z.infer<typeof NetworkChange>;

export const NetworkState = z.enum(['woven', 'measured']);

export const Network = z.object({
  id: z.string(),
  study: z.string(),
  name: z.string(),
  /** Null for a network that came finished from a file; there are no messages behind it. */
  weave: Weave.nullable(),
  directed: z.boolean(),
  sentence: z.string(),
  step: z.int(),
  createdAt: z.string(),
  nodes: z.int(),
  edges: z.int(),
  messages: z.int(),
  state: NetworkState,
  columns: z.array(ColumnInfo),
  /** Tidy decisions with which it was woven, and whether others hold now. */
  decisions: z.int().default(0),
  stale: z.boolean().default(false),
  /** Persons who were forgotten since it was woven: it is to be woven again. */
  forgotten: z.int().default(0),
  /** The network of the whole time of which it is a slice, and which slice; null for one that is no slice. */
  slice: z.object({ of: z.string(), place: z.int(), title: z.string() }).nullable().default(null),
  /** The network that hands changed to make this one, and what they did, in words; null for one that was not changed. */
  changed: z.object({ of: z.string(), name: z.string(), words: z.string() }).nullable().default(null),
  /** Where a package brought it from, and how it was woven there: the words for it; null for a network of this study's own. */
  opened: z
    .object({ title: z.string(), weave: Weave.nullable(), changed: z.string().nullable(), messages: z.int() })
    .nullable()
    .default(null),
  /** What the whole is like; null until it was asked for. */
  whole: WholeNetwork.nullable().default(null),
  /** How its groupings were found, by the name of their column. */
  groupings: z.record(z.string(), GroupingInfo).default({}),
  measures: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
  titles: TitlesByColumn.default({}),
});
export type Network = z.infer<typeof Network>;
/** The newest first. */
export const NetworkPage = pageOf('networks', Network);
export type NetworkPage = z.infer<typeof NetworkPage>;

/** The tables that a network is kept in. */
export const NetworkTable = z.enum(['nodes', 'edges']);
export type NetworkTable = z.infer<typeof NetworkTable>;

/** How a network can be saved as a file. */
export const NetworkExport = z.enum([
  'graphml',
  'csv-nodes',
  'csv-ties',
  'xlsx',
  'gml',
  'json-graph',
  'node-link',
  'dot',
  'arrow-nodes',
  'arrow-ties',
  'parquet-nodes',
  'parquet-ties',
]);
export type NetworkExport = z.infer<typeof NetworkExport>;

export const MeasureSettings = z.object({
  resolution: z.number().min(0.01).max(100).default(1),
  seed: z.int().min(0).max(0xffffffff).default(1),
  /** Louvain is run this often with seeds drawn from the seed; the run with the highest modularity is kept. */
  runs: z.int().min(1).max(100).default(5),
});
export type MeasureSettings = z.infer<typeof MeasureSettings>;
