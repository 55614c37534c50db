import type { NetworkChange } from '@pebble/contract';
import { counted, formatCount, joinWith } from '../words/sentence';
import type { ChangesDone } from './changes';

/** Names that are said one by one; of more their number. */
const NAMED = 3;

/** A change that is planned: "Take out ann and bob", "Tie ann → bob, weight 2". */
export function plannedPhrase(
  change: NetworkChange,
  nameOf: (node: number) => string,
  directed: boolean,
): string {
  const tie = (source: number, target: number): string =>
    `${nameOf(source)} ${directed ? '→' : '–'} ${nameOf(target)}`;
  const names = (nodes: readonly number[]): string =>
    nodes.length > NAMED ? counted(nodes.length, 'node') : joinWith('and', nodes.map(nameOf));
  switch (change.what) {
    case 'without-nodes':
      return `Take out ${names(change.nodes)}`;
    case 'without-ties':
      return change.ties.length > NAMED
        ? `Take out ${counted(change.ties.length, 'tie')}`
        : `Take out the tie ${joinWith(
            'and',
            change.ties.map(({ source, target }) => tie(source, target)),
          )}`;
    case 'new-node':
      return `Add ${change.name}`;
    case 'new-tie':
      return `Tie ${tie(change.source, change.target)}, weight ${formatCount(change.weight)}`;
    case 'merged':
      return `Merge ${names(change.nodes.filter((node) => node !== change.into))} into ${nameOf(change.into)}`;
  }
}

/** "2 nodes taken out with 14 ties, 1 tie added" */
export function changesPhrase(done: ChangesDone): string {
  const parts: string[] = [];
  const say = (count: number, words: string): void => {
    if (count > 0) parts.push(words);
  };
  say(
    done.nodesOut,
    `${counted(done.nodesOut, 'node')} taken out${done.tiesGone > 0 ? ` with ${counted(done.tiesGone, 'tie')}` : ''}`,
  );
  say(done.tiesOut, `${counted(done.tiesOut, 'tie')} taken out`);
  say(done.nodesIn, `${counted(done.nodesIn, 'node')} added`);
  say(done.tiesIn, `${counted(done.tiesIn, 'tie')} added`);
  say(done.tiesStronger, `${counted(done.tiesStronger, 'tie')} made stronger`);
  const with_ = [
    ...(done.tiesJoined > 0 ? [`${counted(done.tiesJoined, 'tie')} became one with another`] : []),
    ...(done.tiesWithin > 0 ? [`${counted(done.tiesWithin, 'tie')} within them left out`] : []),
  ];
  say(
    done.merged,
    `${counted(done.merged, 'node')} merged into others${with_.length > 0 ? ` (${joinWith('and', with_)})` : ''}`,
  );
  return joinWith('and', parts);
}
