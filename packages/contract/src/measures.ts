import { z } from 'zod';

/** Questions about the nodes of a network, each answered by one or two measures. */
export const QuestionId = z.enum([
  'close',
  'well-connected',
  'hubs',
  'core',
  'circle',
  'holds-together',
  'answers',
]);
export type QuestionId = z.infer<typeof QuestionId>;

export const QuestionSettings = z.object({
  /** How often PageRank follows a tie. */
  damping: z.number().min(0.01).max(0.99).default(0.85),
  /** For the choice of start nodes where a network is too large for all. */
  seed: z.int().min(0).max(0xffffffff).default(1),
});
export type QuestionSettings = z.infer<typeof QuestionSettings>;
