import { changing, type MessageOverview } from '@pebble/contract';
import { isAmong } from '../storage/lists';
import type { Store } from '../storage/open';
import type { Runner } from '../runner/runner';

/** The counts of studies, each counted once for each change of its study: a large one takes seconds. */
export class Overviews {
  private readonly counted = new Map<string, { step: number; overview: Promise<MessageOverview> }>();

  constructor(private readonly runner: Runner) {}

  async read(store: Store): Promise<MessageOverview> {
    const { study } = store;
    const step = await this.latestStep(store);
    const known = this.counted.get(study);
    if (known?.step === step) return known.overview;
    const overview = this.runner.read('overview', study, undefined);
    this.counted.set(study, { step, overview });
    overview.catch(() => void this.counted.delete(study));
    return overview;
  }

  /** Everything that changes a study is a step; the last one that is done tells whether its messages were changed. */
  private async latestStep({ query }: Store): Promise<number> {
    const row = await query
      .selectFrom('step')
      .select((e) => e.fn.max('id').as('id'))
      .where('state', '=', 'done')
      .where(isAmong('kind', changing('messages')))
      .executeTakeFirst();
    return row?.id ?? 0;
  }
}
