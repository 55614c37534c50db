import * as z from 'zod';

/** How the nodes of a network fall into groups: communities by three methods, components, or rings by core number. */
export const GroupingMethod = z.enum(['louvain', 'leiden', 'labels', 'weak', 'strong', 'core']);
export type GroupingMethod = z.infer<typeof GroupingMethod>;

export const GroupingSettings = z.object({
  method: GroupingMethod.default('leiden'),
  /** Higher gives more and smaller groups; label propagation, components and rings know none. */
  resolution: z.number().min(0.01).max(100).default(1),
  /** Whether modularity goes by the direction of ties. */
  directed: z.boolean().default(false),
  /** Whether the weights of ties count. */
  weighted: z.boolean().default(true),
  seed: z.int().min(0).max(0xffffffff).default(1),
  runs: z.int().min(1).max(100).default(5),
  /** Further runs that say how sure the groups are; 0 for none. */
  stability: z.int().min(0).max(500).default(20),
  /** Whether these runs see messages that were drawn anew. */
  resample: z.boolean().default(false),
});
export type GroupingSettings = z.infer<typeof GroupingSettings>;

/** What is known of how groups were found. */
export const GroupingInfo = z.object({
  settings: GroupingSettings,
  groups: z.int(),
  /** Groups of one node. */
  single: z.int(),
  modularity: z.number(),
  stability: z
    .object({
      /** Mean share of runs in which a node stays with its group, 0 to 1. */
      mean: z.number(),
      /** Pairs of groups that are one in some runs, with the share of these, the most often first; only the largest groups are compared. */
      merged: z.array(z.object({ a: z.string(), b: z.string(), share: z.number() })),
      compared: z.int(),
    })
    .nullable(),
});
export type GroupingInfo = z.infer<typeof GroupingInfo>;

/** How many groups there are at a resolution. */
export const AtResolution = z.object({
  resolution: z.number(),
  groups: z.int(),
  /** Groups of more than two nodes. */
  larger: z.int(),
  modularity: z.number(),
});
export type AtResolution = z.infer<typeof AtResolution>;
