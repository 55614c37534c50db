import type { OneAndMany } from '../../weaves/kind';
import { counted, formatCount, joinWith } from '../../words/sentence';
import type { FollowedGroup, FollowedLine } from './followGroups';

/** A line in a slice as it is told of, its lines by their numbers or by their names. */
interface Happened<L> extends Pick<FollowedGroup, 'happening' | 'nodes' | 'before'> {
  readonly splitFrom: L | null;
  readonly joinedBy: readonly L[];
}

/**
 * What happened to a line in a slice, in words: "splits off from #moths with 12 accounts"; empty where it goes on as it was.
 * @param words what nodes are called
 */
export function happeningPhrase<L>(
  { happening, nodes, before, splitFrom, joinedBy }: Happened<L>,
  titleOf: (line: L) => string,
  [node, many]: OneAndMany,
): string {
  const joined = joinedBy.length > 0 ? `takes in ${joinWith('and', joinedBy.map(titleOf))}` : '';
  const own = ((): string => {
    switch (happening) {
      case 'begins':
        return splitFrom === null
          ? `begins with ${counted(nodes, node, many)}`
          : `splits off from ${titleOf(splitFrom)} with ${counted(nodes, node, many)}`;
      case 'returns':
        return `is back with ${counted(nodes, node, many)}, after ${formatCount(before!)}`;
      case 'grows':
      case 'shrinks':
        return `${happening} from ${formatCount(before!)} to ${formatCount(nodes)}`;
      case 'stays':
        return '';
    }
  })();
  return [own, joined].filter((part) => part !== '').join(' and ');
}

/** How a line ends, in words; empty for one that has no end. */
export function endPhrase<L>(
  { joined, hasEnded }: Pick<FollowedLine, 'hasEnded'> & { readonly joined: L | null },
  titleOf: (line: L) => string,
): string {
  if (joined !== null) return `goes into ${titleOf(joined)}`;
  return hasEnded ? 'ends' : '';
}
