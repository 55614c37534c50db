import { LayoutSettings, type LayoutMethod } from '@pebble/contract';
import { columnTitle } from '../../measures/columns';
import { goesOn } from '../../layout/arrange';
import { counted } from '../../words/sentence';

/** What an arrangement is called, and what it is good for. */
export interface LayoutWords {
  readonly method: LayoutMethod;
  /** After "arranged". */
  readonly phrase: string;
  readonly says: string;
  readonly source: string;
  /** The columns that it goes by. */
  readonly goesBy: 'nothing' | 'a number' | 'two numbers' | 'groups';
}

const words = (
  method: LayoutMethod,
  phrase: string,
  says: string,
  source: string,
  goesBy: LayoutWords['goesBy'] = 'nothing',
): LayoutWords => ({ method, phrase, says, source, goesBy });

/** All arrangements, in the order in which they are offered. */
export const LAYOUTS: readonly LayoutWords[] = [
  words(
    'attraction',
    'by attraction',
    'Ties attract, all nodes repel each other: what is much tied stands near. For networks of any size.',
    'Noack 2009; Jacomy et al. 2014',
  ),
  words(
    'islands',
    'as islands',
    'Each group by itself, islands near each other where they are much tied. Shows groups more than what is between them.',
    'groups by attraction, each in its own space',
    'groups',
  ),
  words(
    'rings',
    'in rings',
    'The highest values in the middle, lower ones farther out. Shows core and rim; nearness on the page says little else.',
    'rings by value; directions by few crossings',
    'a number',
  ),
  words(
    'circle',
    'in a circle',
    'All nodes on one circle, ordered for few crossings. For up to some hundred nodes.',
    'ordered by the middles of neighbours',
  ),
  words(
    'columns',
    'in two columns',
    'One column for each sort of nodes, ordered for few crossings. For two-mode networks of up to some hundred nodes.',
    'Sugiyama, Tagawa & Toda 1981',
  ),
  words(
    'grid',
    'in rows',
    'Nodes in rows by falling value: an overview that shows no ties well.',
    'by value',
    'a number',
  ),
  words(
    'axes',
    'by two axes',
    'Left to right by one number, upwards by another. Places mean something; ties are only seen beside.',
    'by the values of two columns',
    'two numbers',
  ),
  words(
    'stress',
    'by distances',
    'Distances on the page are as many steps as in the network. For up to 3,000 nodes that hang together.',
    'Gansner, Koren & North 2004',
  ),
  words(
    'springs',
    'by springs',
    'Ties are springs, nodes push each other away evenly. For up to 3,000 nodes, best for some hundred.',
    'Fruchterman & Reingold 1991',
  ),
  words(
    'few-crossings',
    'with few crossings',
    'As few ties cross as are found. For up to 60 nodes that hang together.',
    'in the manner of Davidson & Harel 1996',
  ),
  words(
    'round-one',
    'round one node',
    'One node in the middle: on its left who has ties to it, on its right whom it has ties to, above who has both; the strongest nearest. All others stand outside, in the direction of those that they are tied to.',
    'common practice for the network of one person',
  ),
  words(
    'given',
    'at given places',
    'By two columns, to the right and downwards, in one scale: distances stay true. Places that were written from a map come back to where they were.',
    'by the values of two columns',
    'two numbers',
  ),
];

/** Whether a seed decides where nodes stand. */
export function isByChance(method: LayoutMethod): boolean {
  return !['grid', 'axes', 'rings', 'circle', 'columns', 'round-one', 'given'].includes(method);
}

export function layoutWords(method: LayoutMethod): LayoutWords {
  return LAYOUTS.find((one) => one.method === method)!;
}

/** "in rings by in-degree", for the caption. */
export function layoutPhrase({ method, column, other }: LayoutSettings): string {
  const { phrase, goesBy } = layoutWords(method);
  switch (goesBy) {
    case 'nothing':
      return phrase;
    case 'groups':
      return column === null ? phrase : `${phrase} by ${columnTitle(column)}`;
    case 'a number':
      return `${phrase} by ${column === null ? 'degree' : columnTitle(column)}`;
    case 'two numbers':
      if (method === 'given')
        return `${phrase}, ${columnTitle(column ?? 'degree')} and ${columnTitle(other ?? 'degree')}`;
      return `${phrase}, ${column === null ? 'degree' : columnTitle(column)} across and ${other === null ? 'degree' : columnTitle(other)} up`;
  }
}

const USUAL = LayoutSettings.parse({});

/** "by attraction (Noack 2009; seed 1, 320 iterations); overlaps were removed, …", for the methods text. */
export function layoutSentence(layout: LayoutSettings, iterations: number | null): string {
  const { source, method } = layoutWords(layout.method);
  const isRun = isByChance(method);
  const onward = goesOn(layout);
  const parts = [
    source,
    ...(onward ? ['going on from where the nodes were'] : isRun ? [`seed ${layout.seed}`] : []),
    ...(isRun && iterations !== null ? [counted(iterations, 'iteration')] : []),
    ...(method === 'attraction' && layout.apart !== 'usual'
      ? [`communities pulled ${layout.apart} apart`]
      : []),
    ...(method === 'attraction' && layout.weights !== 'root'
      ? [layout.weights === 'none' ? 'weights of ties left out' : 'ties pull by their whole weight']
      : []),
    ...(method === 'attraction' && layout.hubs !== 'usual'
      ? [
          layout.hubs === 'rim'
            ? 'nodes with many ties pushed to the rim'
            : 'nodes with many ties drawn to the middle',
        ]
      : []),
    ...(method === 'attraction' && layout.gravity !== USUAL.gravity
      ? [`pull towards the middle ${layout.gravity}`]
      : []),
    ...(method === 'attraction' && layout.repulsion !== USUAL.repulsion
      ? [`push between nodes ${layout.repulsion}`]
      : []),
  ];
  const after = [
    ...(layout.separate && method !== 'given' ? ['overlaps were removed'] : []),
    ...(method === 'attraction' && !onward ? ['small components packed round the largest'] : []),
    onward
      ? 'isolates left where they were'
      : layout.isolates === 'below'
        ? 'isolates set apart below'
        : 'isolates set among the rest',
  ];
  return `${layoutPhrase(layout)} (${parts.join('; ')}); ${after.join(', ')}`;
}
