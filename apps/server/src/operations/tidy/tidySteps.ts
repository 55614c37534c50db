import type { NewDecision, TidySort, Verdict } from '@pebble/contract';
import { capital, counted, MergeCircle, resolve, SORT_WORDS } from '@pebble/core';
import { addDecisions, readDecisions } from '../../storage/decisions';
import { isAmong } from '../../storage/lists';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Tidied extends Record<string, unknown> {
  /** Ids of the decisions, so that they can be taken back. */
  readonly decisions: readonly number[];
}

/** Says of things that they are kept, left out, others, called something else, or of a kind. The messages stay as they are. */
export const tidy: StepDefinition<'tidy', Tidied> = {
  kind: 'tidy',
  async run({ store, step, now }, { sort, decisions }) {
    const before = await readDecisions(store, [sort]);
    try {
      resolve([...before, ...decisions]);
    } catch (error) {
      if (error instanceof MergeCircle) throw new StepRefused(`${error.message} Nothing was changed.`);
      throw error;
    }
    const ids = await addDecisions(store, step, sort, decisions);
    await store.query.updateTable('study').set({ changed_at: now }).execute();
    return { decisions: ids };
  },
  describe: ({ sort, decisions }) => `${sentenceOf(sort, decisions)}.`,
};

/** Takes decisions back; what they were about is as it was before them. */
export const takeBackTidy: StepDefinition<'take-back-tidy', { taken: number }> = {
  kind: 'take-back-tidy',
  async run({ store, now }, { decisions }) {
    const done = await store.query
      .updateTable('tidy_decision')
      .set({ taken_back: 1 })
      .where(isAmong('id', decisions))
      .where('taken_back', '=', 0)
      .executeTakeFirst();
    const taken = Number(done.numUpdatedRows);
    if (taken === 0) throw new StepRefused('These decisions were taken back before.');
    await store.query.updateTable('study').set({ changed_at: now }).execute();
    return { taken };
  },
  describe: ({ decisions }, result) =>
    `${counted(result?.taken ?? decisions.length, 'tidy decision')} ${(result?.taken ?? decisions.length) === 1 ? 'was' : 'were'} taken back.`,
};

/** "“a” was merged into “b”"; of several things of one fate their number. */
function sentenceOf(sort: TidySort, decisions: readonly NewDecision[]): string {
  const groups = new Map<string, NewDecision[]>();
  for (const decision of decisions) {
    const fate = fateOf(decision.verdict);
    const same = groups.get(fate);
    if (same) same.push(decision);
    else groups.set(fate, [decision]);
  }
  const parts = [...groups].map(([fate, same]) => {
    if (same.length > 1) return `${counted(same.length, ...SORT_WORDS[sort])} were ${fate}`;
    return `the ${SORT_WORDS[sort][0]} “${same[0].key}” was ${fate}`;
  });
  return capital(parts.join('; '));
}

function fateOf(verdict: Verdict): string {
  switch (verdict.verdict) {
    case 'keep':
      return 'kept as it stands';
    case 'drop':
      return 'left out';
    case 'merge':
      return `merged into “${verdict.into}”`;
    case 'rename':
      return `called “${verdict.label}”`;
    case 'kind':
      return `set to the kind ${verdict.kind}`;
    case 'category':
      return verdict.value === ''
        ? `taken out of “${verdict.name}”`
        : `given the ${verdict.name} “${verdict.value}”`;
  }
}
