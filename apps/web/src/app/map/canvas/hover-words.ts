import { formatValue, nodeLabels, numbersOf, type MapNetwork } from '@pebble/core';
import { counted } from '../../shared/words';
import { hasOwnWeight, rankingColumn } from '../session/tie-columns';

/** What is told of a thing on the map while the pointer rests on it. */
export interface HoverWords {
  readonly title: string;
  readonly lines: readonly string[];
}

export function nodeHover(data: MapNetwork, node: number): HoverWords {
  const value = (name: string): string => formatValue(numbersOf(data.nodes, name)[node]);
  const place = rankingColumn(data);
  return {
    title: nodeLabels(data.nodes)[node],
    lines: [
      'messages' in data.nodes && 'inDegree' in data.nodes
        ? `addressed by ${value('inDegree')}, addresses ${value('outDegree')}`
        : `${place.words} ${value(place.column)}`,
      ['betweenness', 'community']
        .filter((name) => name in data.nodes)
        .map((name) => `${name} ${value(name)}`)
        .join(' · '),
    ],
  };
}

/**
 * @param directed whether its ends are source and target
 * @param number the column that colours ties; null where none does
 */
export function tieHover(
  data: MapNetwork,
  edge: number,
  directed: boolean,
  number: string | null = null,
): HoverWords {
  const labels = nodeLabels(data.nodes);
  const end = (name: string): string => labels[numbersOf(data.edges, name)[edge]];
  const weight = numbersOf(data.edges, 'weight')[edge];
  return {
    title: `${end('source')} ${directed ? '→' : '–'} ${end('target')}`,
    lines: [
      'messages' in data.nodes && Number.isInteger(weight) && !hasOwnWeight(data, edge)
        ? counted(weight, 'message')
        : `weight ${formatValue(weight)}${hasOwnWeight(data, edge) ? ', by hand' : ''}`,
      ...(number === null || number === 'weight' || !ArrayBuffer.isView(data.edges[number])
        ? []
        : [`${number}: ${formatValue(numbersOf(data.edges, number)[edge])}`]),
    ],
  };
}
