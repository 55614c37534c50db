import { searching, searchingByLength } from '../common/cost';
import { measure, type Asked, type Question } from '../question';
import { betweennessBy, pathsInSteps } from './betweenness';
import { bridgeNotes, bridgePlans, TOO_FAR_APART, type FoundBridge } from './bridgePlans';
import { pathsByLength } from './weightedPaths';

export const bridges: Question = {
  id: 'bridges',
  asks: 'Who stands between others?',
  says: 'On how many shortest paths between others a node lies, once strong ties count as short, once ties may be gone both ways.',
  misleads: 'Talk does not keep to shortest paths; and a tie of one message may be the bridge.',
  directedOnly: false,
  columns: [
    measure(
      'betweennessWeighted',
      'betweenness by weight',
      'Share of all pairs of others whose shortest path runs through it, a tie of weight w being 1 / w long (Newman 2001; Brandes 2001); 0 to 1, along the direction of ties where they have one.',
      'lies between others on strong ties',
    ),
    measure(
      'betweennessEither',
      'betweenness either way',
      'Share of all pairs of others whose shortest path runs through it, ties taken without direction and in steps (Freeman 1979; Brandes 2001); 0 to 1.',
      'lies between others, whoever began',
    ),
  ],
  seconds: (nodes, ties) => searching(nodes, ties) + searchingByLength(nodes, ties),
  answer: (asked) => {
    const bridges = asked.bridges ?? bridgesOf(asked);
    const notes = bridges.flatMap((plan) => bridgeNotes(plan, plan.found, asked.seed));
    const hasLengths = bridges.some(({ column }) => column === 'betweennessWeighted');
    return {
      columns: Object.fromEntries(bridges.map(({ column, found }) => [column, found.values])),
      notes: hasLengths ? notes : [...notes, TOO_FAR_APART],
    };
  },
};

function bridgesOf({ graph, directed, seed, progress }: Asked): FoundBridge[] {
  return bridgePlans(graph, directed).map((plan, p, all) => {
    const kernel = plan.kernel === 'length' ? pathsByLength : pathsInSteps;
    const within = (share: number): void => progress((p + share) / all.length);
    const options = { ...plan, seed, normalised: true, progress: within };
    return { ...plan, found: betweennessBy(kernel, plan.rows, options) };
  });
}
