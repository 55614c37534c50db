/** Seconds for a million ties that are looked at: of a step of a search, and of one round of an iteration (measured, one core). */
const SEARCHED = 0.005;
const ROUND = 0.004;
/** Above this many steps start nodes are sampled. */
const MOST_SEARCHES = 2000;
/** The same where ways have lengths, which take so many times as long. */
const MOST_WEIGHTED = 250;
const WEIGHTED = 8;

/** Millions of ends of ties and nodes. */
function millions(nodes: number, ties: number): number {
  return (2 * ties + nodes) / 1e6;
}

/** Searches from every node, or from a sample. */
export function searching(nodes: number, ties: number): number {
  return SEARCHED * Math.min(nodes * millions(nodes, ties), MOST_SEARCHES);
}

/** The same by the lengths of ties. */
export function searchingByLength(nodes: number, ties: number): number {
  return SEARCHED * WEIGHTED * Math.min(nodes * millions(nodes, ties), MOST_WEIGHTED);
}

/** Rounds until the values stay. */
export function iterating(nodes: number, ties: number): number {
  return 200 * ROUND * millions(nodes, ties);
}

/** What is found in the neighbourhood of each node. */
export function lookingAround(nodes: number, ties: number): number {
  const partners = (2 * ties) / Math.max(nodes, 1);
  return 10 * ROUND * millions(nodes, ties) * Math.max(1, partners / 10);
}
