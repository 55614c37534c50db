import { besidePlain, disparity } from './backbone';
import { finishWeave } from './after';
import { undirected } from './undirected';
import type { Woven } from './woven';

function network(
  ties: readonly (readonly [number, number, number])[],
  nodes: number,
  directed = true,
): Woven {
  return {
    directed,
    id: Uint32Array.from({ length: nodes }, (_, v) => 10 + v),
    mode: new Uint8Array(nodes),
    uses: new Float64Array(nodes),
    source: Uint32Array.from(ties, ([a]) => a),
    target: Uint32Array.from(ties, ([, b]) => b),
    weight: Float64Array.from(ties, ([, , w]) => w),
    columns: {
      first: Float64Array.from(ties, (_, e) => 100 - e),
      last: Float64Array.from(ties, (_, e) => 100 + e),
    },
    evidence: null,
    droppedBelowThreshold: 0,
    notes: [],
  };
}
const list = ({ source, target, weight }: Woven): number[][] =>
  [...source].map((a, e) => [a, target[e], weight[e]]);

describe('disparity (Serrano, Boguñá & Vespignani 2009)', () => {
  // A star: node 0 with ties of weight 8, 1 and 1. By the formula (1 - w / s)^(k - 1) with s = 10 and k = 3:
  // 0.2² = 0.04 for the strong tie, 0.9² = 0.81 for the weak ones; ends with one tie say nothing.
  const star = network(
    [
      [0, 1, 8],
      [0, 2, 1],
      [0, 3, 1],
    ],
    4,
    false,
  );

  it('keeps what stands out at the level, worked by hand', () => {
    expect([...disparity(star, 0.05)]).toEqual([0]);
    expect([...disparity(star, 0.039)]).toEqual([]);
    expect([...disparity(star, 0.9)]).toEqual([0, 1, 2]);
  });

  it('counts the outgoing ties of a source and the incoming ones of a target apart', () => {
    const two = network(
      [
        [0, 1, 8],
        [0, 2, 2],
        [3, 2, 2],
      ],
      4,
    );
    // Node 0 sends 8 and 2: (1 - 0.8)^1 = 0.2; node 2 gets 2 and 2: 0.5.
    expect([...disparity(two, 0.3)]).toEqual([0]);
    expect([...disparity(two, 0.6)]).toEqual([0, 1, 2]);
  });
});

describe('besidePlain', () => {
  // Two hubs: the strong ties of the weak one stand out for it, and fall below a plain threshold.
  const hubs = network(
    [
      [0, 1, 80],
      [0, 2, 70],
      [0, 3, 60],
      [4, 5, 8],
      [4, 6, 1],
      [4, 7, 1],
      [4, 4, 99],
    ],
    8,
    false,
  );

  it('says what each keeps, without self-ties, worked by hand', () => {
    const kept = disparity(hubs, 0.05);
    expect([...kept]).toEqual([3, 6]);
    const total = 80 + 70 + 60 + 8 + 1 + 1;
    expect(besidePlain(hubs, kept)).toEqual({
      of: 6,
      backbone: { ties: 1, nodes: 2, weight: 8 / total },
      plain: { atLeast: 80, ties: 1, nodes: 2, weight: 80 / total },
      both: 0,
    });
  });

  it('takes the threshold nearest to as many ties, where several weigh the same', () => {
    const { plain, both } = besidePlain(hubs, Uint32Array.of(0, 3, 4, 5));
    expect([plain.atLeast, plain.ties, both]).toEqual([8, 4, 2]);
    expect(besidePlain(network([], 3), new Uint32Array(0))).toMatchObject({
      of: 0,
      both: 0,
      backbone: { weight: 0 },
    });
  });
});

describe('undirected', () => {
  const both = network(
    [
      [0, 1, 3],
      [1, 0, 5],
      [1, 2, 4],
      [2, 2, 1],
    ],
    3,
  );

  it.each([
    [
      'sum',
      [
        [0, 1, 8],
        [1, 2, 4],
        [2, 2, 1],
      ],
    ],
    [
      'greatest',
      [
        [1, 0, 5],
        [1, 2, 4],
        [2, 2, 1],
      ],
    ],
    [
      'least',
      [
        [0, 1, 3],
        [2, 2, 1],
      ],
    ],
    [
      'mutual',
      [
        [0, 1, 8],
        [2, 2, 1],
      ],
    ],
  ] as const)('%s', (direction, expected) => {
    const made = undirected(both, direction);
    expect([made.directed, list(made)]).toEqual([false, expected]);
    // Added up, moments are those of either; of one direction its own, and the tie goes its way.
    const { first, last } = both.columns;
    const one = { greatest: 1, least: 0, sum: null, mutual: null }[direction];
    expect([made.columns['first'][0], made.columns['last'][0]]).toEqual(
      one === null ? [99, 101] : [first[one], last[one]],
    );
  });
});

describe('finishWeave', () => {
  const parts = network(
    [
      [0, 1, 9],
      [1, 2, 1],
      [1, 5, 1],
      [3, 4, 1],
    ],
    6,
    false,
  );

  it('keeps the largest component, and says how many nodes went', () => {
    const made = finishWeave(parts, { backbone: null, largestOnly: true, isolates: false });
    expect([...made.id]).toEqual([10, 11, 12, 15]);
    expect(made.notes).toEqual(['Only the largest of 2 components was kept: 4 of 6 nodes.']);
  });

  it('says what the backbone keeps, and leaves out nodes that lose their ties', () => {
    const made = finishWeave(parts, { backbone: 0.05, largestOnly: false, isolates: false });
    expect([...made.id]).toEqual([10, 11]);
    expect(made.notes[0]).toBe(
      'The disparity filter at 0.05 (Serrano et al. 2009) keeps 1 of 4 ties; a plain threshold of 9 would keep 1, 1 of them the same.',
    );
    const kept = finishWeave(parts, { backbone: 0.05, largestOnly: false, isolates: true });
    expect(kept.id).toHaveLength(6);
  });

  it('keeps nodes tied to enough others, counting both directions once and self-ties not', () => {
    const ties = network(
      [
        [0, 1, 1],
        [1, 0, 1],
        [0, 2, 1],
        [1, 2, 1],
        [2, 3, 1],
        [3, 3, 1],
        [4, 3, 1],
      ],
      5,
    );
    const after = { backbone: null, largestOnly: false, isolates: false, neighboursAtLeast: 2 };
    const made = finishWeave(ties, after);
    expect([...made.id]).toEqual([10, 11, 12, 13]);
    expect(made.notes).toEqual([
      '4 of 5 nodes are tied to 2 others or more and were kept, with 6 of 7 ties.',
    ]);
    expect(finishWeave(ties, { ...after, neighboursAtLeast: 3 }).id).toHaveLength(0);
  });

  it('changes nothing where nothing is asked for', () => {
    expect(finishWeave(parts, { direction: 'sum', backbone: null, largestOnly: false, isolates: true })).toBe(
      parts,
    );
  });
});
