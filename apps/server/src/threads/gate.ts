/** Milliseconds for which the gate stays closed after an answer: the next question of a screen often follows at once. */
const QUIET = 400;
/** Milliseconds after which one who waits looks whether it is cancelled. */
const LOOK = 100;

/** Milliseconds that one waits at most, so that it goes on, if slowly, where somebody asks without end. */
const LONGEST = 3000;

/** Element 0 counts what people wait for at the moment. */
export type Gate = Int32Array;

export function makeGate(): Gate {
  return new Int32Array(new SharedArrayBuffer(4));
}

/** Does something that somebody waits for, while what is only prepared pauses. */
export async function ahead<T>(gate: Gate, work: () => Promise<T>): Promise<T> {
  Atomics.add(gate, 0, 1);
  try {
    return await work();
  } finally {
    setTimeout(() => {
      Atomics.sub(gate, 0, 1);
      Atomics.notify(gate, 0);
    }, QUIET).unref();
  }
}

/**
 * Blocks a thread that prepares something until nobody waits for anything else: it has the cores that are free, and takes none from
 * others. Returns whether it had to wait.
 */
export function letOthersPass(gate: Gate, isCancelled: () => boolean, told: () => void): boolean {
  const begun = performance.now();
  let waited = false;
  for (let ahead = Atomics.load(gate, 0); ahead > 0; ahead = Atomics.load(gate, 0)) {
    if (isCancelled() || performance.now() - begun > LONGEST) break;
    if (!waited) told();
    waited = true;
    Atomics.wait(gate, 0, ahead, LOOK);
  }
  return waited;
}

/** Milliseconds that one works at least between two times in which it lets others pass. */
const WORK = 500;

/**
 * The same for something that asks often whether others wait: where somebody asks without end, it works a while after each time that it
 * waited, however often it asks.
 */
export function lettingOthersPass(gate: Gate, isCancelled: () => boolean, told: () => void): () => void {
  let since = performance.now();
  return () => {
    if (performance.now() - since < WORK) return;
    letOthersPass(gate, isCancelled, told);
    since = performance.now();
  };
}
