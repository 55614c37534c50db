import type { ImportMapping } from '@pebble/contract';
import { readAdjacencyList } from './adjacency';
import { readDot } from './dot';
import { BrokenNetwork, type FoundNetwork } from './foundNetwork';
import { readGml } from './gml';
import { readGraphml } from './graphml';
import { readNodeLink } from './nodeLink';
import { readJsonGraph } from './jsonGraph';

/** Reads a network of a format that stands in one text; tables of ties and matrices are read by their rows. */
export function readNetworkText(
  text: string,
  { format, delimiter }: Pick<ImportMapping, 'format' | 'delimiter'>,
): FoundNetwork {
  switch (format) {
    case 'graphml':
      return readGraphml(text);
    case 'gml':
      return readGml(text);
    case 'node-link':
      return readNodeLink(text);
    case 'jgf':
      return readJsonGraph(text);
    case 'dot':
      return readDot(text);
    case 'adjacency':
      return readAdjacencyList(text, delimiter);
    default:
      throw new BrokenNetwork(`A file of this format (${format}) holds no network.`, null);
  }
}
