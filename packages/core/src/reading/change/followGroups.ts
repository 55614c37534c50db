import { overlaps, type SliceGroups } from './overlaps';

export interface FollowSettings {
  /** The least Jaccard coefficient of two groups that are one in two slices, above 0 to 1. */
  readonly threshold: number;
  /** Groups of fewer nodes are not followed. */
  readonly least: number;
  /** In so many slices on end a group may be missing, and be the same afterwards. */
  readonly patience: number;
}

/** What a group is beside its line: new, back again, or larger, smaller or about as large as when it was seen last. */
export type Happening = 'begins' | 'returns' | 'grows' | 'shrinks' | 'stays';

/** A group of one slice, on the line that it belongs to. */
export interface FollowedGroup {
  readonly slice: number;
  readonly group: number;
  readonly line: number;
  readonly nodes: number;
  readonly happening: Happening;
  /** How alike it is to the group before it on its line, Jaccard; null for the first one. */
  readonly alike: number | null;
  /** Nodes of the group before it; null for the first one. */
  readonly before: number | null;
  /** The line that it split off from. */
  readonly splitFrom: number | null;
  /** Lines that ended in it. */
  readonly joinedBy: readonly number[];
}

/** A group through time. */
export interface FollowedLine {
  readonly first: number;
  readonly last: number;
  /** Nodes of all its groups, added up. */
  readonly nodes: number;
  /** The line that it went into; null for one that ended by itself, or did not end. */
  readonly joined: number | null;
  /** Whether it was missing for longer than is waited for, or joined another one; what is missing only in the last slices has no end yet. */
  readonly hasEnded: boolean;
}

export interface Followed {
  /** The largest first. */
  readonly lines: readonly FollowedLine[];
  /** By slice, in each by its groups: the line of the group, -1 for one that is too small. */
  readonly lineOf: readonly Int32Array[];
  /** In the order of slices, in each the largest line first. */
  readonly groups: readonly FollowedGroup[];
}

/** A group has grown when it is so many times as large as before, and shrunk when it was. */
export const CHANGED = 1.25;

/** A line as it is drawn on. */
interface OpenLine {
  /** In the order in which lines begin. */
  readonly place: number;
  readonly groups: Omit<FollowedGroup, 'line' | 'splitFrom' | 'joinedBy'>[];
  readonly splitFrom: OpenLine | null;
  readonly joinedBy: Map<number, OpenLine[]>;
  joined: OpenLine | null;
  isClosed: boolean;
}

/**
 * Follows groups from slice to slice by the nodes that they share (Greene, Doyle & Cunningham 2010, ASONAM): each group is compared with the
 * last ones of all lines by the Jaccard coefficient. The most alike pairs go on as one line; a further group of a line has split off from
 * it, a line that is alike to a group of another one has joined that.
 * @param nodeCount nodes of all slices are numbered from 0 to below it
 */
export function followGroups(
  slices: readonly SliceGroups[],
  nodeCount: number,
  { threshold, least, patience }: FollowSettings,
): Followed {
  const sizes = slices.map(sizesOf);
  const lineOf = slices.map(({ groups }) => new Array<OpenLine | null>(groups).fill(null));
  const lines: OpenLine[] = [];
  const lastOf = (line: OpenLine): OpenLine['groups'][number] => line.groups[line.groups.length - 1];

  for (let t = 0; t < slices.length; t++) {
    const pairs = pairsWithBefore(t);
    const goesOn = new Set<OpenLine>();
    for (const { line, group, alike } of pairs) {
      if (goesOn.has(line) || lineOf[t][group]) continue;
      goesOn.add(line);
      const { slice, nodes } = lastOf(line);
      const happening = t - slice > 1 ? 'returns' : changeOf(nodes, sizes[t][group]);
      line.groups.push({ slice: t, group, nodes: sizes[t][group], happening, alike, before: nodes });
      lineOf[t][group] = line;
    }
    // Every group that is alike to none, or to none that is left, begins a line.
    const nearest = new Map<number, OpenLine>();
    for (const { line, group } of pairs) if (!nearest.has(group)) nearest.set(group, line);
    for (let group = 0; group < slices[t].groups; group++) {
      if (lineOf[t][group] || sizes[t][group] < least) continue;
      const splitFrom = nearest.get(group) ?? null;
      const begun = { slice: t, group, nodes: sizes[t][group], alike: null, before: null };
      const line: OpenLine = {
        place: lines.length,
        groups: [{ ...begun, happening: 'begins' }],
        splitFrom,
        joinedBy: new Map(),
        joined: null,
        isClosed: false,
      };
      lines.push(line);
      lineOf[t][group] = line;
    }
    for (const { line, group } of pairs) {
      if (goesOn.has(line) || line.isClosed) continue;
      line.joined = lineOf[t][group];
      line.isClosed = true;
      const { joinedBy } = line.joined!;
      joinedBy.set(t, [...(joinedBy.get(t) ?? []), line]);
    }
    for (const line of lines) if (t - lastOf(line).slice > patience) line.isClosed = true;
  }
  return numbered(lines, lineOf);

  /** Open lines with the groups of a slice that are alike to them, the most alike first. */
  function pairsWithBefore(t: number) {
    const pairs: { line: OpenLine; group: number; alike: number; nodes: number }[] = [];
    for (let before = t - 1; before >= 0 && t - before <= patience + 1; before--)
      for (const { a, b, nodes } of overlaps(slices[before], slices[t], nodeCount)) {
        const line = lineOf[before][a];
        if (!line || line.isClosed || sizes[t][b] < least) continue;
        const last = lastOf(line);
        if (last.slice !== before || last.group !== a) continue;
        const alike = nodes / (sizes[before][a] + sizes[t][b] - nodes);
        if (alike >= threshold) pairs.push({ line, group: b, alike, nodes });
      }
    return pairs.sort(
      (x, y) => y.alike - x.alike || y.nodes - x.nodes || x.line.place - y.line.place || x.group - y.group,
    );
  }
}

function changeOf(before: number, now: number): Happening {
  if (now >= CHANGED * before) return 'grows';
  return before >= CHANGED * now ? 'shrinks' : 'stays';
}

function sizesOf({ group, groups }: SliceGroups): Uint32Array {
  const sizes = new Uint32Array(groups);
  for (const g of group) if (g >= 0) sizes[g]++;
  return sizes;
}

/** Lines by their numbers: the one with most nodes over all slices is 0; of equal ones that which began first. */
function numbered(open: readonly OpenLine[], lineOf: readonly (OpenLine | null)[][]): Followed {
  const nodesOf = new Map(open.map((line) => [line, line.groups.reduce((sum, { nodes }) => sum + nodes, 0)]));
  const ordered = [...open].sort((a, b) => nodesOf.get(b)! - nodesOf.get(a)!);
  const number = new Map(ordered.map((line, i) => [line, i]));
  const numberOf = (line: OpenLine | null): number | null => (line ? number.get(line)! : null);
  const groups = ordered.flatMap((line, i) =>
    line.groups.map((one): FollowedGroup => ({
      ...one,
      line: i,
      splitFrom: one.happening === 'begins' ? numberOf(line.splitFrom) : null,
      joinedBy: (line.joinedBy.get(one.slice) ?? []).map((other) => number.get(other)!).sort((a, b) => a - b),
    })),
  );
  return {
    lines: ordered.map((line) => ({
      first: line.groups[0].slice,
      last: line.groups[line.groups.length - 1].slice,
      nodes: nodesOf.get(line)!,
      joined: numberOf(line.joined),
      hasEnded: line.isClosed,
    })),
    lineOf: lineOf.map((of) => Int32Array.from(of, (line) => numberOf(line) ?? -1)),
    groups: groups.sort((a, b) => a.slice - b.slice || a.line - b.line),
  };
}
