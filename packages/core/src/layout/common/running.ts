/** An arrangement that is worked out in rounds; positions have no unit, and can be looked at between the rounds. */
export interface Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly iterations: number;
  /** True once nodes hardly move any more. */
  readonly atRest: boolean;
  iterate(): void;
}

/** Positions without a unit. */
export interface Places {
  readonly x: Float64Array;
  readonly y: Float64Array;
}
