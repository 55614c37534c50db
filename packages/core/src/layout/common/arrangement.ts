/** Positions of all nodes, in pixels at scale 1; y grows downwards. */
export interface Arrangement {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly iterations: number;
  /** True when the layout came to rest by itself before its iterations were used up. */
  readonly cameToRest: boolean;
  /** Pairs of nodes that still overlap. */
  readonly overlaps: number;
}
