import type { Naming } from '@pebble/contract';
import { counted, handleKey, joinWith } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { everyName } from '../../people/identities';
import { keepersOf } from '../../people/keepers';
import { everyPerson } from '../../people/persons';
import { addPseudonyms, countPseudonyms, erasePseudonyms, keepNaming } from '../../storage/people';
import type { StepDefinition, StepResult } from '../step';

interface Named extends StepResult {
  /** People who had none before. */
  readonly added: number;
  readonly known: number;
  readonly kept: number;
  /** Of those that were chosen by their handles: who is nobody in this study. */
  readonly unknown: readonly string[];
}

/** Decides how people are called in what is published, and gives those a pseudonym who have none. */
export const namePeople: StepDefinition<'name-people', Named> = {
  kind: 'name-people',
  async run({ store }, naming, progress) {
    if (naming.form === 'category' && naming.category === '')
      throw new StepRefused('Choose the category that is to stand before the numbers.');
    progress('Giving pseudonyms', null);
    await keepNaming(store, naming);
    if (naming.form === 'as they are')
      return { added: 0, known: await countPseudonyms(store), kept: 0, unknown: [] };
    const everybody = new Set(await everyPerson(store));
    const added = addPseudonyms(store, everybody, await everyName(store));
    const isKept = await keepersOf(store, naming);
    const kept = [...everybody].filter(isKept).length;
    const unknown = naming.keep.filter((handle) => !everybody.has(handleKey(handle)));
    return { added, known: await countPseudonyms(store), kept, unknown };
  },
  describe(naming, result) {
    if (naming.form === 'as they are') return 'In what is published, people are called as they are.';
    const whom = keptPhrase(naming);
    const kept =
      whom === ''
        ? ''
        : `; ${result ? counted(result.kept, 'account') : 'those'} ${whom} ${result?.kept === 1 ? 'keeps its name' : 'keep their names'}`;
    const unknown =
      result && result.unknown.length > 0
        ? ` Nobody is called ${joinWith('or', result.unknown.slice(0, 20))}${result.unknown.length > 20 ? ', or one of further names' : ''}.`
        : '';
    const details =
      naming.details.length > 0
        ? ` What tells more of them goes out in ${joinWith('and', naming.details)}.`
        : '';
    return `In what is published, people are called by pseudonyms (${FORMS[naming.form]}), made with a secret of the study${kept}.${details}${unknown}`;
  },
};

const FORMS = { words: 'two words', numbers: 'numbers', category: 'a category and a number' } as const;

function keptPhrase({ keep, keepKinds }: Naming): string {
  return joinWith('or', [
    ...(keepKinds.length > 0 ? [`of the kind ${joinWith('or', keepKinds)}`] : []),
    ...(keep.length > 0 ? ['chosen one by one'] : []),
  ]);
}

/** Takes away who has which pseudonym, for good. */
export const forgetPseudonyms: StepDefinition<'forget-pseudonyms', StepResult & { readonly known: number }> =
  {
    kind: 'forget-pseudonyms',
    erases: true,
    async run({ store }) {
      const known = await countPseudonyms(store);
      if (known === 0) throw new StepRefused('Nobody has a pseudonym.');
      await erasePseudonyms(store);
      return { known };
    },
    describe: (_, result) =>
      `The key to pseudonyms${result ? ` of ${counted(result.known, 'person', 'people')}` : ''} was deleted, with its secret: nobody can say any more who was called what.`,
  };
