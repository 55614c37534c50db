import type { LayoutSettings } from '@pebble/contract';
import { goesOn } from '../../layout/arrange';
import { layoutKind } from '../../layout/kinds';
import { columnTitle } from '../../measures/columns';
import { counted } from '../../words/sentence';

/** "in rings by in-degree", for the caption. */
export function layoutPhrase({ method, column, other }: LayoutSettings): string {
  const { phrase, goesBy, byTwo = acrossAndUp } = layoutKind(method);
  const titleOf = (name: string | null): string => (name === null ? 'degree' : columnTitle(name));
  switch (goesBy) {
    case 'nothing':
      return phrase;
    case 'groups':
      return column === null ? phrase : `${phrase} by ${columnTitle(column)}`;
    case 'a number':
      return `${phrase} by ${titleOf(column)}`;
    case 'two numbers':
      return `${phrase}${byTwo(titleOf(column), titleOf(other))}`;
  }
}

const acrossAndUp = (first: string, second: string): string => `, ${first} across and ${second} up`;

/** "by attraction (Noack 2009; seed 1, 320 iterations); overlaps were removed, …", for the methods text. */
export function layoutSentence(layout: LayoutSettings, iterations: number | null): string {
  const { source, isByChance, settingWords, how } = layoutKind(layout.method);
  const onward = goesOn(layout);
  const parts = [
    source,
    ...(onward ? ['going on from where the nodes were'] : isByChance ? [`seed ${layout.seed}`] : []),
    ...(isByChance && iterations !== null ? [counted(iterations, 'iteration')] : []),
    ...(settingWords?.(layout) ?? []),
  ];
  const after = [
    ...(layout.separate && !('isExact' in how) ? ['overlaps were removed'] : []),
    ...('begin' in how && !onward ? ['small components packed round the largest'] : []),
    ...('takesIsolates' in how ? [] : [isolatesPhrase(layout)]),
  ];
  return [
    `${layoutPhrase(layout)} (${parts.join('; ')})`,
    ...(after.length > 0 ? [after.join(', ')] : []),
  ].join('; ');
}

function isolatesPhrase(layout: LayoutSettings): string {
  if (goesOn(layout)) return 'isolates left where they were';
  return layout.isolates === 'below' ? 'isolates set apart below' : 'isolates set among the rest';
}
