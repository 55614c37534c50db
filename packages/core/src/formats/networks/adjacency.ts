import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

/**
 * Reads an adjacency list: on each line a node and then the nodes that it is tied to. Lines with "#" are comments.
 * @param delimiter what stands between names; a space for any white space
 */
export function readAdjacencyList(text: string, delimiter: string, directed = true): FoundNetwork {
  const builder = new NetworkBuilder(directed);
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '' || line.startsWith('#')) return;
    const cells = (delimiter === ' ' ? line.trim().split(/\s+/) : line.split(delimiter)).map((cell) =>
      cell.trim(),
    );
    const [first, ...others] = cells;
    if (first === '') throw new BrokenNetwork('The line names no node at its start.', i + 1);
    builder.node(first);
    for (const other of others) if (other !== '') builder.edge(first, other, '', {}, i + 1);
  });
  return builder.finish();
}
