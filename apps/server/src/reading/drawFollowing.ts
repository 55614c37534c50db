import type { Following } from '@pebble/contract';
import { followGroups, groupsByNode, overlaps, type Followed, type FollowSettings } from '@pebble/core';
import type { NumberedSlices } from './sliceGroups';

/** Lines that are told of; smaller ones stand in the columns alone, and count as one in what goes from slice to slice. */
export const MOST_LINES = 60;

/** What is told of lines, and the line of each node in each slice: from 0, -1 for none. */
interface DrawnFollowing {
  readonly body: Pick<Following, 'lines' | 'groups' | 'bands' | 'further'>;
  readonly lineOf: readonly Int32Array[];
}

/** What a line is called in the column. */
export const lineName = (line: number): string => String(line + 1);

/** Follows the groups of slices, and says what becomes of them. */
export function drawFollowing(numbered: NumberedSlices, settings: FollowSettings): DrawnFollowing {
  const { slices, nodeCount } = numbered;
  const followed = followGroups(slices, nodeCount, settings);
  const lineOf = slices.map(({ group }, s) => group.map((g) => (g < 0 ? -1 : followed.lineOf[s][g])));
  const byLine = slices.map(({ node }, s) => ({
    node,
    group: lineOf[s].map((line) => Math.min(line, MOST_LINES)),
    groups: MOST_LINES + 1,
  }));
  const toldName = (line: number): string => (line < MOST_LINES ? lineName(line) : '');
  const bands = byLine.slice(1).flatMap((later, s) =>
    overlaps(byLine[s], later, nodeCount).map(({ a, b, nodes }) => ({
      slice: s,
      from: toldName(a),
      to: toldName(b),
      nodes,
    })),
  );
  const gone = goneOf(numbered, lineOf);
  const others = followed.lines.slice(MOST_LINES);
  return {
    lineOf,
    body: {
      lines: followed.lines.slice(0, MOST_LINES).map(({ joined, ...line }, i) => ({
        ...line,
        line: lineName(i),
        joined: joined === null ? null : lineName(joined),
      })),
      groups: toldGroups(followed, gone).filter(({ line }) => Number(line) <= MOST_LINES),
      bands,
      further: { lines: others.length, nodes: others.reduce((sum, { nodes }) => sum + nodes, 0) },
    },
  };
}

function toldGroups({ groups }: Followed, gone: readonly Map<number, number>[]): Following['groups'] {
  return groups.map(({ slice, line, nodes, happening, alike, before, splitFrom, joinedBy }) => ({
    slice,
    line: lineName(line),
    nodes,
    happening,
    alike,
    before,
    splitFrom: splitFrom === null ? null : lineName(splitFrom),
    joinedBy: joinedBy.map(lineName),
    gone: slice < gone.length ? (gone[slice].get(line) ?? 0) : null,
  }));
}

/** By slice but the last, by line: nodes that are not in the next slice. */
function goneOf({ slices, nodeCount }: NumberedSlices, lineOf: readonly Int32Array[]): Map<number, number>[] {
  return slices.slice(1).map((later, s) => {
    // Whatever group it has there, or none.
    const there = groupsByNode({ ...later, group: new Int32Array(later.node.length) }, nodeCount);
    const gone = new Map<number, number>();
    lineOf[s].forEach((line, v) => {
      if (line >= 0 && there[slices[s].node[v]] < 0) gone.set(line, (gone.get(line) ?? 0) + 1);
    });
    return gone;
  });
}

/** The line in which each node is in most slices, by its number; the larger of equal ones, -1 for none. */
export function mainLines({ slices, nodeCount }: NumberedSlices, lineOf: readonly Int32Array[]): Int32Array {
  const counts = Array.from({ length: nodeCount }, () => new Map<number, number>());
  slices.forEach(({ node }, s) => {
    lineOf[s].forEach((line, v) => {
      const own = counts[node[v]];
      if (line >= 0) own.set(line, (own.get(line) ?? 0) + 1);
    });
  });
  return Int32Array.from(counts, (own) => {
    let [best, most] = [-1, 0];
    for (const [line, count] of own)
      if (count > most || (count === most && line < best)) [best, most] = [line, count];
    return best;
  });
}
