/** One comparison: ours beside a reference on the same work in the same run. */
export interface Row {
  readonly name: string;
  readonly work: string;
  readonly ours: number;
  readonly reference: number;
  readonly ratio: number;
  readonly bound: string;
  readonly held: boolean;
  readonly note: string;
}

/** Milliseconds of the quickest of several runs. */
export async function time(runs: number, work: () => unknown): Promise<number> {
  let best = Infinity;
  for (let run = 0; run < runs; run++) {
    const started = performance.now();
    await work();
    best = Math.min(best, performance.now() - started);
  }
  return best;
}

/** Ours must be at least `factor` times as fast as the reference. */
export function faster(
  name: string,
  work: string,
  ours: number,
  reference: number,
  factor: number,
  note = '',
): Row {
  const ratio = reference / ours;
  const bound = `at least ${factor} times as fast`;
  return { name, work, ours, reference, ratio, bound, held: ratio >= factor, note };
}

/** Ours may take at most `factor` times the reference. */
export function atMost(
  name: string,
  work: string,
  ours: number,
  reference: number,
  factor: number,
  note = '',
): Row {
  const ratio = ours / reference;
  const bound = `at most ${factor} times`;
  return { name, work, ours, reference, ratio, bound, held: ratio <= factor, note };
}

/** A time or a size under a fixed bound; the reference is the bound. */
export function under(name: string, work: string, ours: number, bound: number, unit: string, note = ''): Row {
  return {
    name,
    work,
    ours,
    reference: bound,
    ratio: ours / bound,
    bound: `under ${bound} ${unit}`,
    held: ours < bound,
    note,
  };
}
