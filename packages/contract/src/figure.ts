import * as z from 'zod';

/** How a figure of a map is asked for by its address. */
export const FigureQuery = z.object({
  /** Width in pixels. */
  width: z.coerce.number().int().min(300).max(8000).default(1800),
  /** Pixels to the inch: of a PNG, and of a PDF how large its page is. */
  resolution: z.coerce.number().int().min(72).max(1200).default(300),
  ground: z.enum(['paper', 'white', 'night', 'none']).default('paper'),
  caption: z.enum(['true', 'false']).default('true'),
  /** The number of a plate of this network: its map takes the place of the one that is open. */
  plate: z.coerce.number().int().optional(),
  /** How large names, ties and legend are beside what they are on a screen. */
  lettering: z.coerce.number().min(0.5).max(3).default(1),
});
export type FigureQuery = z.infer<typeof FigureQuery>;
export const FIGURE_FORMATS = ['svg', 'png', 'pdf'] as const;
export type FigureFormat = (typeof FIGURE_FORMATS)[number];
