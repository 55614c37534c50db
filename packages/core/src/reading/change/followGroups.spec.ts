import fc from 'fast-check';
import { followGroups, type Followed, type FollowSettings } from './followGroups';
import { endPhrase, happeningPhrase } from './happeningPhrase';
import { overlaps, type SliceGroups } from './overlaps';

const SETTINGS: FollowSettings = { threshold: 0.3, least: 3, patience: 1 };

const from = (first: number, count: number): number[] => Array.from({ length: count }, (_, i) => first + i);

function slice(...groups: readonly (readonly number[])[]): SliceGroups {
  return {
    node: groups.flat(),
    group: Int32Array.from(groups.flatMap((nodes, g) => nodes.map(() => g))),
    groups: groups.length,
  };
}

const follow = (slices: readonly SliceGroups[], settings: Partial<FollowSettings> = {}): Followed =>
  followGroups(slices, 1000, { ...SETTINGS, ...settings });

const told = ({ groups }: Followed): string[] =>
  groups.map(({ slice: s, line, happening, nodes }) => `${s}: ${line} ${happening} ${nodes}`);

const NODES = ['node', 'nodes'] as const;
const titleOf = (line: number): string => `#${line}`;

describe('following groups with planted happenings', () => {
  it('keeps a group as one line while it grows, shrinks and stays', () => {
    const found = follow([slice(from(0, 10)), slice(from(0, 14)), slice(from(0, 13)), slice(from(0, 8))]);
    expect(told(found)).toEqual(['0: 0 begins 10', '1: 0 grows 14', '2: 0 stays 13', '3: 0 shrinks 8']);
    expect(found.lines).toEqual([{ first: 0, last: 3, nodes: 45, joined: null, hasEnded: false }]);
    expect(found.groups[1].alike).toBeCloseTo(10 / 14, 12);
  });

  it('tells a birth and a death', () => {
    const steady = from(100, 20);
    const found = follow([
      slice(steady, from(0, 6)),
      slice(steady, from(0, 6)),
      slice(steady, from(200, 5)),
      slice(steady, from(200, 5)),
    ]);
    expect(found.lines.map(({ first, last, hasEnded }) => [first, last, hasEnded])).toEqual([
      [0, 3, false],
      [0, 1, true],
      [2, 3, false],
    ]);
    expect(endPhrase(found.lines[1], titleOf)).toBe('ends');
  });

  it('tells that two groups become one: the larger line goes on', () => {
    const found = follow([slice(from(0, 12), from(12, 8)), slice(from(0, 20))]);
    expect(told(found)).toEqual(['0: 0 begins 12', '0: 1 begins 8', '1: 0 grows 20']);
    expect(found.groups[2].joinedBy).toEqual([1]);
    expect(found.lines[1]).toMatchObject({ joined: 0, hasEnded: true });
    expect(happeningPhrase(found.groups[2], titleOf, NODES)).toBe('grows from 12 to 20 and takes in #1');
    expect(endPhrase(found.lines[1], titleOf)).toBe('goes into #0');
  });

  it('tells that a group falls apart: the larger part goes on, the other has split off', () => {
    const found = follow([slice(from(0, 20)), slice(from(0, 12), from(12, 8))]);
    expect(told(found)).toEqual(['0: 0 begins 20', '1: 0 shrinks 12', '1: 1 begins 8']);
    expect(found.groups[2].splitFrom).toBe(0);
    expect(happeningPhrase(found.groups[2], titleOf, NODES)).toBe('splits off from #0 with 8 nodes');
  });

  it('waits for a group that is missing, as long as it is told to', () => {
    const slices = [slice(from(0, 6)), slice(from(50, 6)), slice(from(0, 6))];
    expect(told(follow(slices))).toContain('2: 0 returns 6');
    const impatient = follow(slices, { patience: 0 });
    expect(impatient.lines).toHaveLength(3);
    expect(impatient.lines.filter(({ hasEnded }) => hasEnded)).toHaveLength(2);
  });

  it('follows no group that is too small, and says so', () => {
    const found = follow([slice(from(0, 5), [10, 11]), slice(from(0, 5), [10, 11])]);
    expect(found.lines).toHaveLength(1);
    expect(found.lineOf.map((of) => [...of])).toEqual([
      [0, -1],
      [0, -1],
    ]);
  });

  it('calls what is less alike than the threshold another group', () => {
    // 4 of 16 nodes in both: Jaccard 0.25.
    const slices = [slice(from(0, 10)), slice(from(6, 10))];
    expect(follow(slices).lines).toHaveLength(2);
    expect(follow(slices, { threshold: 0.25 }).lines).toHaveLength(1);
  });

  it('takes no slices, and slices without groups', () => {
    expect(follow([]).lines).toEqual([]);
    expect(follow([slice(), slice(from(0, 4)), slice()]).lines).toEqual([
      { first: 1, last: 1, nodes: 4, joined: null, hasEnded: false },
    ]);
  });
});

const someSlices = fc
  .array(fc.array(fc.integer({ min: -1, max: 4 }), { minLength: 20, maxLength: 20 }), {
    minLength: 1,
    maxLength: 6,
  })
  .map((all) =>
    all.map((group): SliceGroups => ({ node: from(0, 20), group: Int32Array.from(group), groups: 5 })),
  );

it('gives every group that is large enough one line, and no line two groups of a slice', () => {
  fc.assert(
    fc.property(someSlices, fc.double({ min: 0.05, max: 1, noNaN: true }), (slices, threshold) => {
      const { groups, lines, lineOf } = followGroups(slices, 20, { threshold, least: 2, patience: 1 });
      expect(new Set(groups.map(({ slice: s, line }) => `${s} ${line}`)).size).toBe(groups.length);
      slices.forEach(({ group }, s) => {
        for (let g = 0; g < 5; g++) {
          const nodes = group.filter((own) => own === g).length;
          const found = groups.filter((one) => one.slice === s && one.group === g);
          expect(found.map((one) => one.nodes)).toEqual(nodes >= 2 ? [nodes] : []);
          expect(lineOf[s][g]).toBe(found[0]?.line ?? -1);
        }
      });
      for (const { alike } of groups) if (alike !== null) expect(alike).toBeGreaterThanOrEqual(threshold);
      expect(lines.map(({ nodes }) => nodes)).toEqual(lines.map(({ nodes }) => nodes).sort((a, b) => b - a));
    }),
  );
});

it('counts shared nodes as sets do', () => {
  fc.assert(
    fc.property(someSlices, (slices) => {
      const [first, second] = [slices[0], slices[slices.length - 1]];
      const members = ({ group }: SliceGroups, g: number): number[] =>
        from(0, 20).filter((v) => group[v] === g);
      for (let a = 0; a < 5; a++)
        for (let b = 0; b < 5; b++) {
          const there = new Set(members(first, a));
          const shared = members(second, b).filter((v) => there.has(v)).length;
          const found = overlaps(first, second, 20).find((one) => one.a === a && one.b === b);
          expect(found?.nodes ?? 0).toBe(shared);
        }
    }),
  );
});
