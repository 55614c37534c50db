/** A step that was ended by hand. */
export class StepCancelled extends Error {
  constructor() {
    super('Cancelled. Nothing of this step was kept; what was there before is unchanged.');
  }
}

/** A step that cannot be done, in a sentence for the person who can act. */
export class StepRefused extends Error {
  constructor(
    message: string,
    readonly place: { file?: string; row?: number; field?: string } = {},
  ) {
    super(message);
  }
}
