import type { QuestionId, QuestionSettings } from '@pebble/contract';
import { inRows, neighbourRows, outRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';
import { basicMeasures } from '../network/measure';
import { betweenGroups } from './betweenGroups';
import { betweennessBy, pathsInSteps, type Betweenness } from './betweenness';
import { bridgeNotes, bridgePlans, TOO_FAR_APART, type BridgePlan } from './bridgePlans';
import { closeness } from './closeness';
import { cuts } from './cutNodes';
import { degrees } from './degree';
import { constraint, coreNumbers, localClustering, reciprocatedShare } from './neighbourhood';
import { questionOf, whyNotAsked } from './questions';
import { degreeBySort, redundancy } from './twoMode';
import { pathsByLength } from './weightedPaths';
import { eigenvector, hubsAndAuthorities, pagerank } from './rank';

/** Columns of the nodes that answer questions, and what is to be said of how they were computed, in sentences. */
export interface Answers {
  readonly columns: Readonly<Record<string, Float64Array | Uint32Array>>;
  /** Columns of the ties, in the order of these. */
  readonly ties: Readonly<Record<string, readonly string[]>>;
  readonly notes: readonly string[];
}

export interface AnswerContext {
  /** The group of each node; null where there are none. */
  readonly groups: ArrayLike<number> | null;
  /** The sort of each node of a two-mode network; null for another. */
  readonly sorts: readonly string[] | null;
  /** Betweenness where it was computed already, in several threads. */
  readonly bridges?: readonly FoundBridge[];
  progress?(share: number): void;
}

/** A column of betweenness with what came out. */
export interface FoundBridge extends BridgePlan {
  readonly found: Betweenness;
}

function bridgesOf(
  graph: Graph,
  directed: boolean,
  seed: number,
  progress: (share: number) => void,
): FoundBridge[] {
  return bridgePlans(graph, directed).map((plan, p, all) => {
    const kernel = plan.kernel === 'length' ? pathsByLength : pathsInSteps;
    const within = (share: number): void => progress((p + share) / all.length);
    const options = { ...plan, seed, normalised: true, progress: within };
    return { ...plan, found: betweennessBy(kernel, plan.rows, options) };
  });
}

/**
 * Answers questions about the nodes of a network; self-loops have no part in any. Questions that need a direction are left out of an
 * undirected one, and those that need groups where there are none, which is noted.
 */
export function answerQuestions(
  graph: Graph,
  directed: boolean,
  questions: readonly QuestionId[],
  { damping, seed }: QuestionSettings,
  context: AnswerContext,
): Answers {
  const { groups, sorts, progress } = context;
  const either = withoutSelfLoops(neighbourRows(graph));
  const out = directed ? withoutSelfLoops(outRows(graph)) : either;
  const columns: Record<string, Float64Array | Uint32Array> = {};
  const ties: Record<string, readonly string[]> = {};
  const notes: string[] = [];
  const rest = (name: string, converged: boolean, iterations: number): void => {
    if (!converged)
      notes.push(`${name} did not come to rest in ${iterations} rounds: its values are not to be trusted.`);
  };
  questions.forEach((question, at) => {
    const within = (share: number): void => progress?.((at + share) / questions.length);
    within(0);
    const why = whyNotAsked(questionOf(question), sorts !== null);
    if (why !== null) return void notes.push(`A question was left out. ${why}`);
    switch (question) {
      case 'basics': {
        const settings = { resolution: 1, runs: 5, seed };
        const found = basicMeasures(graph, settings, (_, share) => within(share), directed);
        const { component: _component, community: _community, ...measures } = found.columns;
        Object.assign(columns, measures);
        if (found.pivots !== null)
          notes.push(
            `Betweenness was estimated from ${found.pivots} start nodes (Brandes & Pich 2007; seed ${seed}).`,
          );
        return;
      }
      case 'bridges': {
        const bridges = context.bridges ?? bridgesOf(graph, directed, seed, within);
        for (const plan of bridges) {
          columns[plan.column] = plan.found.values;
          notes.push(...bridgeNotes(plan, plan.found, seed));
        }
        if (!bridges.some(({ column }) => column === 'betweennessWeighted')) notes.push(TOO_FAR_APART);
        return;
      }
      case 'close': {
        const found = closeness(either, { seed, progress: within });
        columns['closeness'] = found.closeness;
        columns['harmonic'] = found.harmonic;
        if (found.pivots !== null)
          notes.push(
            `Closeness was estimated from ${found.pivots} start nodes (Eppstein & Wang 2004; seed ${seed}).`,
          );
        return;
      }
      case 'well-connected': {
        const vector = eigenvector(either);
        const rank = pagerank(out, damping);
        columns['eigenvector'] = vector.values;
        columns['pageRank'] = rank.values;
        if (either.weight.length === 0) notes.push('Without ties eigenvector centrality is undefined.');
        rest('Eigenvector centrality', vector.converged, vector.iterations);
        rest('PageRank', rank.converged, rank.iterations);
        return;
      }
      case 'hubs': {
        if (!directed) return void notes.push(WITHOUT_DIRECTION);
        const found = hubsAndAuthorities(out);
        columns['hub'] = found.hubs;
        columns['authority'] = found.authorities;
        if (out.weight.length === 0) notes.push('Without ties hubs and authorities are undefined.');
        rest('The search for hubs and authorities', found.converged, found.iterations);
        return;
      }
      case 'core':
        columns['core'] = coreNumbers(either);
        return;
      case 'circle':
        columns['clustering'] = localClustering(either);
        columns['constraint'] = constraint(either);
        return;
      case 'holds-together':
        const { cutsOff, bridges } = cuts(either);
        columns['cutsOff'] = cutsOff;
        ties['bridge'] = bridgesAmong(graph, bridges);
        return;
      case 'answers': {
        if (!directed) return void notes.push(WITHOUT_DIRECTION);
        const { inStrength, outStrength } = degrees(graph);
        columns['reciprocated'] = reciprocatedShare(out, withoutSelfLoops(inRows(graph)));
        columns['receivedPerSent'] = inStrength.map((into, v) =>
          outStrength[v] > 0 ? into / outStrength[v] : NaN,
        );
        return;
      }
      case 'between-groups': {
        if (groups === null)
          return void notes.push('The nodes have no such groups: a question that needs them was left out.');
        const found = betweenGroups(either, groups);
        columns['participation'] = found.participation;
        columns['outwardness'] = found.outwardness;
        columns['groupsTouched'] = found.groupsTouched;
        return;
      }
      case 'two-mode': {
        columns['degreeBySort'] = degreeBySort(either, sorts!);
        const found = redundancy(either, within);
        if (found) columns['redundancy'] = found;
        else notes.push('Redundancy was left out: it would take too long in so dense a network.');
      }
    }
  });
  return { columns, ties, notes };
}

const WITHOUT_DIRECTION = 'Ties of this network have no direction: a question that needs it was left out.';

/** Of each tie whether it alone holds two parts together: "bridge", or empty. */
function bridgesAmong(
  { nodeCount, source, target }: Graph,
  bridges: readonly (readonly [number, number])[],
): string[] {
  const pairs = new Set(bridges.map(([a, b]) => a * nodeCount + b));
  return Array.from(source, (a, e) => {
    const b = target[e];
    return pairs.has(Math.min(a, b) * nodeCount + Math.max(a, b)) ? 'bridge' : '';
  });
}
