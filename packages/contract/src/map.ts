import { z } from 'zod';

export const Growth = z.enum(['linear', 'square root', 'logarithm']);
export type Growth = z.infer<typeof Growth>;

/** Everything a map shows apart from the positions: the caption is its sentence. */
export const MapDescription = z.object({
  size: z.object({
    column: z.string(),
    growth: Growth,
    /** Radius in pixels at scale 1. */
    smallest: z.number().min(0.5).max(60),
    largest: z.number().min(1).max(120),
  }),
  colour: z.object({ column: z.string() }),
  names: z.object({
    count: z.int().min(0).max(2000),
    column: z.string(),
    /** Height of the letters in pixels at scale 1. */
    fontSize: z.number().min(6).max(48),
  }),
  ties: z.object({ colour: z.enum(['by community', 'neutral']), arrows: z.boolean() }),
  show: z.object({
    /** Only ties of at least this weight. */
    atLeast: z.number().min(0),
    largestComponent: z.boolean(),
    isolates: z.boolean(),
    /** Only these communities, or null for all. */
    communities: z.array(z.int()).nullable(),
  }),
});
export type MapDescription = z.infer<typeof MapDescription>;

export const defaultMap: MapDescription = {
  size: { column: 'inDegree', growth: 'square root', smallest: 3, largest: 15 },
  colour: { column: 'community' },
  names: { count: 25, column: 'betweenness', fontSize: 12 },
  ties: { colour: 'by community', arrows: true },
  show: { atLeast: 1, largestComponent: false, isolates: true, communities: null },
};

export const LayoutSettings = z.object({
  seed: z.int().min(0).max(0xffffffff).default(1),
  /** Iterations at most; the layout stops by itself before when it has come to rest. */
  iterations: z.int().min(1).max(10_000).default(600),
  gravity: z.number().min(0).max(100).default(1),
  /** How strongly nodes push each other away. */
  repulsion: z.number().min(0.01).max(1000).default(10),
});
export type LayoutSettings = z.infer<typeof LayoutSettings>;

export const SavedMap = z.object({
  network: z.string(),
  description: MapDescription,
  layout: LayoutSettings.nullable(),
  iterations: z.int().nullable(),
  /** Nodes that were moved by hand since the layout. */
  moved: z.int(),
  hasPositions: z.boolean(),
});
export type SavedMap = z.infer<typeof SavedMap>;
