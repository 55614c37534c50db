import { getHeapStatistics, setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** Bytes of a thread's memory above which what it no longer needs is given back at once: an idle thread would keep it for long. */
const MUCH = 100 * 1024 ** 2;
/** Only what has grown since by so much is looked through again, or a thread that holds much would do little else. */
const GROWN = 1.5;

let collect: (() => void) | null = null;
/** Bytes that were left the last time. */
let left = 0;

/** Gives the memory of a large piece of work back, once its answer is on its way. */
export function tidyUp(): void {
  if (getHeapStatistics().total_heap_size < Math.max(MUCH, left * GROWN)) return;
  setImmediate(() => {
    if (!collect) {
      setFlagsFromString('--expose-gc');
      collect = runInNewContext('gc') as () => void;
    }
    collect();
    left = getHeapStatistics().total_heap_size;
  });
}
