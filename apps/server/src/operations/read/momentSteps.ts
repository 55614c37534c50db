import { dayPhrase } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

/** A point in time that stands on every axis of time from then on. */
export const markMoment: StepDefinition<'mark-moment'> = {
  kind: 'mark-moment',
  async run({ store }, { time, name }) {
    const { count } = await store.query
      .selectFrom('moment')
      .select((e) => e.fn.countAll<number>().as('count'))
      .executeTakeFirstOrThrow();
    if (count >= MOST) throw new StepRefused(`A study has at most ${MOST} moments. Take one away first.`);
    await store.query.insertInto('moment').values({ time, name }).execute();
    return {};
  },
  describe: ({ time, name }) => `The moment “${name}” was marked on ${dayPhrase(time, true)}.`,
};

export const forgetMoment: StepDefinition<'forget-moment'> = {
  kind: 'forget-moment',
  async run({ store }, { id }) {
    await store.query.deleteFrom('moment').where('id', '=', id).execute();
    return {};
  },
  describe: ({ name }) => `The moment “${name}” is no longer marked.`,
};

/** More marks on an axis could not be read. */
const MOST = 200;
