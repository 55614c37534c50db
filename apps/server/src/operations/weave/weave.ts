import type { Weave } from '@pebble/contract';
import {
  counted,
  firstMap,
  formatBound,
  formatCount,
  nodeWords,
  numbersOf,
  weaveSentence,
} from '@pebble/core';
import { withReadableTies } from './withReadableTies';
import { evidenceOf } from '../../weaving/evidenceOf';
import { isOfNetwork, networkKind } from '../../weaving/kinds';
import { fromStudy } from '../../weaving/fromStudy';
import type { WeaveResult } from '../../weaving/weaveResult';
import { measuredNext } from './measuredNext';
import { storeNetwork } from './storeNetwork';
import type { Store } from '../../storage/open';
import type { StepDefinition } from '../step';

interface Result extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly edges: number;
  readonly messages: number;
  readonly droppedBelowThreshold: number;
  readonly notes: readonly string[];
  readonly decisions: number;
}

function makeOf(store: Store, recipe: Weave, progress: (share: number) => void): Promise<WeaveResult> {
  return isOfNetwork(recipe)
    ? networkKind(recipe).weave(store, recipe, evidenceOf)
    : fromStudy(store, recipe, progress);
}

/** A recipe becomes a network of the study. */
export const weave: StepDefinition<'weave', Result> = {
  kind: 'weave',
  async run(context, { name, weave: recipe }, progress) {
    progress('Weaving', null);
    const made = await makeOf(context.store, recipe, (share) => progress('Weaving', 0.8 * share));
    progress('Storing', 0.8);
    const weight = numbersOf(made.edges, 'weight');
    const nodes = made.nodes['id'].length;
    const map = withReadableTies(firstMap(recipe, made.directed), recipe, weight, nodes);
    const stored = await storeNetwork(context, {
      ...made,
      name,
      weave: recipe,
      sentence: `${weaveSentence(recipe).slice(0, -1)}${made.from}.`,
      map,
    });
    return {
      ...stored,
      messages: made.messages,
      droppedBelowThreshold: made.dropped,
      notes: [...made.notes, ...shownNote(weight, map.show.atLeast)],
      decisions: made.decisions.length,
    };
  },
  describe({ name, weave: recipe }, result) {
    if (!result) return `The network “${name}” was to be woven.`;
    const dropped =
      result.droppedBelowThreshold > 0
        ? `; ${counted(result.droppedBelowThreshold, 'tie')} below the threshold ${result.droppedBelowThreshold === 1 ? 'was' : 'were'} left out`
        : '';
    const from = result.messages > 0 ? ` from ${counted(result.messages, 'message')}` : '';
    const notes = result.notes.map((note) => ` ${note}`).join('');
    const tidied = result.decisions > 0 ? `, after ${counted(result.decisions, 'tidy decision')}` : '';
    return `${weaveSentence(recipe).slice(0, -1)}: ${counted(result.nodes, ...nodeWords(recipe))} and ${counted(result.edges, 'tie')}${from}${tidied}${dropped}.${notes}`;
  },
  followUps: (result) => [measuredNext(result)],
};

/** Of a dense network, which of its ties the map shows at first. */
function shownNote(weight: ArrayLike<number>, atLeast: number): string[] {
  if (atLeast === 0) return [];
  const shown = Array.from(weight).filter((one) => one >= atLeast).length;
  return [
    `At first the map shows the ${formatCount(shown)} strongest of ${counted(weight.length, 'tie')}, those of weight ${formatBound(atLeast)} or more.`,
  ];
}
