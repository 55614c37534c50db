import type { Condition, Shown } from '@pebble/contract';
import { columnTitle } from '../../measures/columns';
import { counted, formatCount, joinWith, periodPhrase } from '../../words/sentence';
import { alternatives } from './shown';
import { formatBound, formatValue } from '../../words/formatValue';

/** "of the largest component, with in-degree of at least 5 and not named “shop”"; empty where nothing is left out. */
export function shownPhrase(show: Shown): string {
  const parts: string[] = [];
  if (show.largestComponent) parts.push('of the largest component');
  if (show.communities !== null)
    parts.push(
      show.communities.length === 1
        ? `of community ${show.communities[0]}`
        : `of ${show.communities.length} communities`,
    );
  const { joined, conditions } = show.where;
  if (conditions.length > 0) parts.push(joinWith(joined, conditions.map(conditionPhrase)));
  if (!show.isolates) parts.push('with ties');
  if (show.atLeast > 0) parts.push(`by ties of weight ${formatBound(show.atLeast)} or more`);
  if (show.period) parts.push(`by ties with messages ${periodPhrase(show.period.from, show.period.until)}`);
  return parts.join(', ');
}

/** "with in-degree from 5 to 20", "not named “shop” or “cafe”". */
export function conditionPhrase(condition: Condition): string {
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
      const [first, ...more] = condition.values;
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
