import type { Logger } from 'pino';
import type { Collector } from '../collect/collector';
import type { Config } from '../config';
import type { Store } from '../db/open';
import type { Runner } from '../runner/runner';

/** What the routes use. */
export interface Services {
  readonly config: Config;
  /** Whoever asks must have it. */
  readonly key: string;
  readonly store: Store;
  readonly runner: Runner;
  readonly collector: Collector;
  readonly log: Logger;
}
