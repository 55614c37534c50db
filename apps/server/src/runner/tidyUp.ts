import { getHeapStatistics, setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** Bytes of a thread's memory above which what it no longer needs is given back at once: an idle thread would keep it for long. */
const MUCH = 80 * 1024 ** 2;

let collect: (() => void) | null = null;

/** Gives the memory of a large piece of work back, once its answer is on its way. */
export function tidyUp(): void {
  if (getHeapStatistics().total_heap_size < MUCH) return;
  setImmediate(() => {
    if (!collect) {
      setFlagsFromString('--expose-gc');
      collect = runInNewContext('gc') as () => void;
    }
    collect();
  });
}
