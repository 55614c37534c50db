import type { AccountWeave, Decision, FollowWeave, Weave } from '@pebble/contract';
import {
  audiences,
  finishWeave,
  type EvidenceRows,
  leftNote,
  messagesBehind,
  takenAddresses,
  tidyAddresses,
  tidyFollows,
  weaveAccounts,
  weaveFollows,
  type Woven,
  whatEmptiesAccounts,
} from '@pebble/core';
import { readAddresses } from '../storage/addresses';
import type { Store } from '../storage/open';
import { readFollows } from '../storage/occurrences';
import { readTaken } from '../storage/taken';
import { modeColumn, type CountedWeave, type NamedWeave, type NodeColumn } from './namedWeave';
import { tidyAccounts, type TidyAccounts } from './tidied';
import { weaveTexts } from './weaveTexts';
import { weaveThings } from './weaveThings';

/** The weaves that are made from what a study holds; groups or one sort of nodes of a network are made from that network. */
export type StudyWeave = Exclude<Weave, { what: 'groups' | 'projection' }>;

/** Weaves a network of a study; nothing is stored. Throws TooManyTies, and what `progress` throws. */
export function weaveStudy(
  store: Store,
  weave: StudyWeave,
  decisions: readonly Decision[],
  progress?: (share: number) => void,
): NamedWeave {
  const counted = weaveCounted(store, weave, decisions, progress);
  const woven = withOneEvidence(finishWeave(counted.woven, { isolates: false, ...weave }));
  return {
    woven,
    messages: messagesBehind(woven),
    labels: Array.from(woven.id, (id, v) => counted.labelOf(id, woven.mode[v])),
    keyOf: counted.keyOf,
    own: counted.ownColumns?.(woven) ?? [],
    emptiedBy:
      counted.woven.source.length === 0 ? counted.emptiedBy : 'No tie is left by what is done afterwards.',
  };
}

/** Rows of evidence are made once, whoever asks for them. */
function withOneEvidence(woven: Woven): Woven {
  const { evidence } = woven;
  let made: EvidenceRows | null = null;
  return evidence ? { ...woven, evidence: () => (made ??= evidence()) } : woven;
}

function weaveCounted(
  store: Store,
  weave: StudyWeave,
  decisions: readonly Decision[],
  progress?: (share: number) => void,
): CountedWeave {
  const tidy = tidyAccounts(store, decisions);
  switch (weave.what) {
    case 'accounts':
      return accounts(store, weave, tidy);
    case 'together':
    case 'shared':
    case 'two-mode':
      return weaveThings(store, weave, tidy, decisions, progress);
    case 'follows':
      return follows(store, weave, tidy);
    case 'in-step':
    case 'alike':
      return weaveTexts(store, weave, tidy, decisions, progress);
  }
}

function accounts(store: Store, weave: AccountWeave, tidy: TidyAccounts): CountedWeave {
  const isTaken = readTaken(store, weave);
  const all = readAddresses(store);
  const { rows: taken, left } = isTaken ? takenAddresses(all, isTaken) : { rows: all, left: 0 };
  const rows = tidyAddresses(taken, tidy.now);
  const woven = weaveAccounts(rows, weave);
  return {
    woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
    labelOf: (account) => tidy.labels.get(account) ?? '',
    keyOf: null,
    emptiedBy:
      rows.count === 0 && left > 0
        ? 'No message is left by the choice of messages.'
        : whatEmptiesAccounts(rows, weave, woven.droppedBelowThreshold),
  };
}

function follows(store: Store, weave: FollowWeave, tidy: TidyAccounts): CountedWeave {
  const woven = weaveFollows(tidyFollows(readFollows(store), tidy.now), weave);
  const nameOf = (account: number): string => tidy.labels.get(account) ?? '';
  // A listed account that follows another is a node of either sort.
  const followers = new Set(woven.id.filter((_, v) => woven.mode[v] === 0));
  const labelOf = (account: number, mode: number): string =>
    mode === 1 && followers.has(account) ? `${nameOf(account)} (list)` : nameOf(account);
  return {
    woven,
    labelOf,
    keyOf: null,
    ownColumns(left) {
      const of = audiences(woven, nameOf);
      const key = ({ id, mode }: Pick<Woven, 'id' | 'mode'>, v: number): string => `${mode[v]} ${id[v]}`;
      const audience = new Map(of.map((names, v) => [key(woven, v), names]));
      const values = Array.from(left.id, (_, v) => audience.get(key(left, v)) ?? '');
      const how = 'Which of the listed accounts it follows.';
      const follow: NodeColumn = {
        info: { name: 'follows', title: 'follows', type: 'category', how },
        values,
      };
      return weave.sorts === 'two' ? [modeColumn(left, 'follower', 'list'), follow] : [follow];
    },
    emptiedBy:
      woven.droppedBelowThreshold > 0
        ? `Nobody follows ${weave.listsAtLeast} of the listed accounts. Ask for fewer.`
        : 'There are no follower lists in this study yet.',
  };
}
