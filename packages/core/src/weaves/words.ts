import type { NamedFilter, Weave } from '@pebble/contract';
import { filterPhrase } from '../query/filterPhrase';
import { capital, counted, joinWith, periodPhrase } from '../words/sentence';
import { kindOf, nodeWords } from '.';

/** The least that a weave asks of a tie. */
export function leastOf(weave: Weave): number {
  return 'atLeast' in weave ? weave.atLeast : 1;
}

/** Whether the weight of a tie is a count, of messages or of things, and not one that was divided or scaled. */
export function weighsByCounting(weave: Weave): boolean {
  if ('scale' in weave) return weave.scale === 'count';
  return !('share' in weave) || weave.share === 'whole';
}

/** The period of a weave with its zone, null where it has none of its own. */
export function periodOf(weave: Weave): string | null {
  if (!('from' in weave)) return null;
  const zone = weave.from === null && weave.until === null ? '' : ' (UTC)';
  return `${periodPhrase(weave.from, weave.until)}${zone}`;
}

/** What the weave makes, as one sentence. */
export function weaveSentence(weave: Weave): string {
  const kind = kindOf(weave);
  const least = leastOf(weave) > 1 ? ` ${kind.least(weave, leastOf(weave))}` : '';
  const period = periodOf(weave);
  const [, many] = nodeWords(weave);
  const head = `${capital(many)} tied when ${kind.tie(weave)}${least}${period === null ? '' : `, ${period}`}`;
  return `${[head, ...takenPhrases(weave), ...kind.conditions(weave), ...endings(weave)].join('; ')}.`;
}

/** Which messages are taken. */
function takenPhrases(weave: Weave): string[] {
  if (!('only' in weave)) return [];
  const { only, except, withoutSources } = weave;
  const named = ({ name, filter }: NamedFilter): string => `“${name}” (${filterPhrase(filter)})`;
  const sources = withoutSources.map(({ name }) => `“${name}”`);
  return [
    ...(only ? [`only messages of the filter ${named(only)}`] : []),
    ...(except ? [`without messages of the filter ${named(except)}`] : []),
    ...(sources.length > 0
      ? [`without the ${sources.length === 1 ? 'source' : 'sources'} ${joinWith('and', sources)}`]
      : []),
  ];
}

/** What is done when the ties are counted. */
function endings(weave: Weave): string[] {
  if (!('backbone' in weave)) return [];
  const direction = 'direction' in weave ? weave.direction : 'kept';
  return [
    ...(direction === 'kept' ? [] : [TURNED[direction]]),
    ...(weave.backbone === null
      ? []
      : [`only ties that stand out for one of their ends (disparity filter at ${weave.backbone})`]),
    ...(weave.neighboursAtLeast === null
      ? []
      : [`only nodes tied to at least ${counted(weave.neighboursAtLeast, 'other')}`]),
    ...(weave.largestOnly ? ['only the largest component'] : []),
  ];
}

const TURNED = {
  sum: 'both directions added up',
  least: 'the weaker direction counts',
  greatest: 'the stronger direction counts',
  mutual: 'only where both directions are, added up',
} as const;
