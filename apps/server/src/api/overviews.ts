import type { MessageOverview, StepKind } from '@pebble/contract';
import { isNoneOf } from '../db/lists';
import type { Store } from '../db/open';
import type { Runner } from '../runner/runner';

/** Steps that work on networks and their maps: the messages of the study stay what they were. */
const OF_NETWORKS: readonly StepKind[] = [
  'weave',
  'weave-slices',
  'share-arrangement',
  'measure-network',
  'measure-betweenness',
  'answer-questions',
  'describe-whole',
  'group-nodes',
  'regroup',
  'split-group',
  'scan-resolutions',
  'test-removal',
  'doubt-ranks',
  'compute-column',
  'mark-nodes',
  'change-network',
  'rename-network',
  'delete-network',
  'restore-network',
  'remove-for-good',
  'arrange-map',
  'describe-map',
  'keep-look',
  'forget-look',
  'add-pictures',
  'remove-pictures',
  'export-figure',
  'export-network',
  'export-data',
];

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
      .where(isNoneOf('kind', OF_NETWORKS))
      .executeTakeFirst();
    return row?.id ?? 0;
  }
}
