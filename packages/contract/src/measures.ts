import * as z from 'zod';

/** Questions about the nodes of a network, each answered by one or two measures. */
export const QuestionId = z.enum([
  /** The measures that every network gets at once, of the part that is shown. */
  'basics',
  'bridges',
  'close',
  'well-connected',
  'hubs',
  'core',
  'circle',
  'holds-together',
  'answers',
  'between-groups',
  'two-mode',
]);
export type QuestionId = z.infer<typeof QuestionId>;

/** A figure of random networks with the same degrees. */
export const ByChance = z.object({ mean: z.number(), deviation: z.number().nullable() });
export type ByChance = z.infer<typeof ByChance>;

/** What a whole network is like: figures by their names, null for one that is not there, and some of them by chance. */
export const WholeNetwork = z.object({
  figures: z.record(z.string(), z.number().nullable()),
  byChance: z.record(z.string(), ByChance),
  /** Random networks that were made, and their seed. */
  networks: z.int(),
  seed: z.int(),
});
export type WholeNetwork = z.infer<typeof WholeNetwork>;

/** Measures whose ranks can be computed again on messages drawn anew. */
export const DoubtMeasure = z.enum([
  'inDegree',
  'outDegree',
  'degree',
  'inStrength',
  'outStrength',
  'strength',
  'betweenness',
  'pageRank',
]);
export type DoubtMeasure = z.infer<typeof DoubtMeasure>;

export const QuestionSettings = z.object({
  /** How often PageRank follows a tie. */
  damping: z.number().min(0.01).max(0.99).default(0.85),
  /** The column whose groups are meant where a question is about groups. */
  groups: z.string().default('community'),
  /** For the choice of start nodes where a network is too large for all. */
  seed: z.int().min(0).max(0xffffffff).default(1),
});
export type QuestionSettings = z.infer<typeof QuestionSettings>;
