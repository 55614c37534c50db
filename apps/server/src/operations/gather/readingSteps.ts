import { checkMessage } from '../checkMessage';
import type { StepDefinition } from '../step';

/** A star or a note of the researcher on a message, kept for citation. */
export const markMessage: StepDefinition<'mark-message'> = {
  kind: 'mark-message',
  async run(context, { message, starred, note }) {
    await checkMessage(context, message);
    const { query } = context.store;
    if (!starred && note === '')
      await query.deleteFrom('message_mark').where('message_id', '=', message).execute();
    else {
      const values = { starred: starred ? 1 : 0, note };
      await query
        .insertInto('message_mark')
        .values({ message_id: message, ...values })
        .onConflict((c) => c.column('message_id').doUpdateSet(values))
        .execute();
    }
    return {};
  },
  describe({ message, starred, note }) {
    const marks = [starred ? 'a star' : '', note !== '' ? 'a note' : ''].filter((mark) => mark !== '');
    return marks.length > 0
      ? `Message ${message} was given ${marks.join(' and ')}.`
      : `The mark of message ${message} was taken away.`;
  },
};

export const setLanguage: StepDefinition<'set-language'> = {
  kind: 'set-language',
  async run(context, { message, language }) {
    await checkMessage(context, message);
    const values = { language, how: 'by hand' };
    await context.store.query
      .insertInto('message_language')
      .values({ message_id: message, ...values })
      .onConflict((c) => c.column('message_id').doUpdateSet(values))
      .execute();
    return {};
  },
  describe: ({ message, language }) => `The language of message ${message} was set to ${language} by hand.`,
};

export const saveFilter: StepDefinition<'save-filter'> = {
  kind: 'save-filter',
  async run({ store }, { name, filter }) {
    const values = { filter: JSON.stringify(filter) };
    await store.query
      .insertInto('saved_filter')
      .values({ name, ...values })
      .onConflict((c) => c.column('name').doUpdateSet(values))
      .execute();
    return {};
  },
  describe: ({ name }) => `A filter of the messages was kept as “${name}”.`,
};

export const forgetFilter: StepDefinition<'forget-filter'> = {
  kind: 'forget-filter',
  async run({ store }, { id }) {
    await store.query.deleteFrom('saved_filter').where('id', '=', id).execute();
    return {};
  },
  describe: ({ name }) => `The kept filter “${name}” was forgotten.`,
};
