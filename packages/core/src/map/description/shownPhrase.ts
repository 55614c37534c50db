import type { Condition, Shown, TitlesByColumn } from '@pebble/contract';
import { columnTitle } from '../../measures/columns';
import { counted, formatCount, joinWith, periodPhrase } from '../../words/sentence';
import { alternatives } from './shown';
import { formatBound, formatValue } from '../../words/formatValue';

/** Communities that are named one by one. */
const MOST_NAMED = 3;

/**
 * "of the largest component, with in-degree of at least 5 and not named “shop”"; empty where nothing is left out.
 * @param titles what groups are called
 */
export function shownPhrase(show: Shown, titles: TitlesByColumn = {}): string {
  const parts: string[] = [];
  if (show.largestComponent) parts.push('of the largest component');
  if (show.communities !== null) parts.push(communitiesPhrase(show.communities, titles['community'] ?? {}));
  const { joined, conditions } = show.where;
  if (conditions.length > 0)
    parts.push(
      joinWith(
        joined,
        conditions.map((condition) => conditionPhrase(condition, titles)),
      ),
    );
  if (!show.isolates) parts.push('with ties');
  if (show.atLeast > 0) parts.push(`by ties of weight ${formatBound(show.atLeast)} or more`);
  if (show.period) parts.push(`by ties with messages ${periodPhrase(show.period.from, show.period.until)}`);
  return parts.join(', ');
}

/** Few communities by their titles, where all have one; many by their number. */
function communitiesPhrase(communities: readonly number[], titles: Readonly<Record<string, string>>): string {
  const named = communities.flatMap((one) => (titles[one] === undefined ? [] : [quoted(titles[one])]));
  if (named.length === communities.length && named.length > 0 && named.length <= MOST_NAMED)
    return `of ${joinWith('and', named)}`;
  return communities.length === 1 ? `of community ${communities[0]}` : `of ${communities.length} communities`;
}

/** "with in-degree from 5 to 20", "not named “shop” or “cafe”". @param titles what groups are called */
export function conditionPhrase(condition: Condition, titles: TitlesByColumn = {}): string {
  const not = condition.not;
  switch (condition.what) {
    case 'range': {
      const { from, until } = condition;
      const bounds =
        from !== null && until !== null
          ? `from ${formatValue(from)} to ${formatValue(until)}`
          : from !== null
            ? `of at least ${formatValue(from)}`
            : until !== null
              ? `of at most ${formatValue(until)}`
              : 'of any value';
      return `with${not ? 'out' : ''} ${columnTitle(condition.column)} ${bounds}`;
    }
    case 'values': {
      const called = titles[condition.column] ?? {};
      const [first, ...more] = condition.values.map((value) => called[value] ?? value);
      const named =
        more.length > 3
          ? `one of ${condition.values.length} values`
          : condition.values.length === 0
            ? 'nothing'
            : joinWith('or', [first, ...more].map(quoted));
      return `whose ${columnTitle(condition.column)} is ${not ? 'not ' : ''}${named}`;
    }
    case 'named': {
      const texts = alternatives(condition.text);
      return `${not ? 'not ' : ''}named ${texts.length > 0 ? joinWith('or', texts.map(quoted)) : 'anything'}`;
    }
    case 'core':
      return `${not ? 'not ' : ''}in the ${formatCount(condition.atLeast)}-core`;
    case 'components':
      return condition.largest === 1
        ? `${not ? 'not ' : ''}in the largest component`
        : `${not ? 'not ' : ''}in the ${formatCount(condition.largest)} largest components`;
    case 'chosen':
      return `${not ? 'not ' : ''}among ${counted(condition.nodes.length, 'chosen node')}`;
    case 'near': {
      const way = { either: '', out: ' along ties', in: ' against ties' }[condition.way];
      return `${not ? 'not ' : ''}within ${counted(condition.steps, 'step')}${way} of ${counted(condition.nodes.length, 'chosen node')}`;
    }
  }
}

function quoted(text: string): string {
  return `“${text}”`;
}
