import { LayoutMethod, LayoutSettings } from '@pebble/contract';
import fc from 'fast-check';
import { neighbourRows } from '../graph/csr';
import { makeGraph, type Graph } from '../graph/graph';
import { Random } from '../random';
import { complete } from '../testing/graphs';
import { planted, randomTwin, zachary } from '../testing/known';
import { arrange } from './arrange';
import { chordCrossings, columnCrossings, countCrossings, estimateCrossings } from './fewCrossings/crossings';
import { allDistances } from './stress/distances';
import { legibility } from './legibility';
import { NO_DATA, type LayoutData } from './common/placed';
import { ringsOf } from './rings/rings';
import { roundPoint } from './common/roundPoint';
import { normalisedStress } from './stress/stress';

const radii = (n: number): Float32Array => new Float32Array(n).fill(4);
const draw = (graph: Graph, settings: object, data: Partial<LayoutData> = {}) =>
  arrange(graph, radii(graph.nodeCount), LayoutSettings.parse(settings), undefined, { ...NO_DATA, ...data });

/** The Petersen graph: a ring of five, a star of five, and the ties between. */
const petersen = makeGraph(
  10,
  [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 1, 2, 3, 4],
  [1, 2, 3, 4, 0, 7, 8, 9, 5, 6, 5, 6, 7, 8, 9],
);
const line = (n: number): Graph =>
  makeGraph(
    n,
    Array.from({ length: n - 1 }, (_, i) => i),
    Array.from({ length: n - 1 }, (_, i) => i + 1),
  );

/** All that find places; given ones are what they are. */
const METHODS = LayoutMethod.options.filter((method) => method !== 'given');

describe('every arrangement', () => {
  it.each(METHODS)('%s is the same for the same seed, finite, without overlaps', (method) => {
    const { graph, group } = planted(2, 3, 18, 0.3, 0.02);
    const groups = Uint32Array.from(group);
    const size = radii(graph.nodeCount);
    const made = draw(graph, { method, iterations: 200 }, { groups });
    const again = draw(graph, { method, iterations: 200 }, { groups });
    expect([again.x, again.y]).toEqual([made.x, made.y]);
    expect([...made.x, ...made.y].every(Number.isFinite)).toBe(true);
    for (let a = 0; a < graph.nodeCount; a++)
      for (let b = 0; b < a; b++)
        expect(Math.hypot(made.x[a] - made.x[b], made.y[a] - made.y[b])).toBeGreaterThan(
          size[a] + size[b] - 0.1,
        );
  });

  it.each(METHODS)('%s stands nothing, one node, and nodes without ties', (method) => {
    for (const n of [0, 1, 2, 5]) {
      const { x, y } = draw(makeGraph(n, [], []), { method });
      expect([...x, ...y].every(Number.isFinite)).toBe(true);
      expect(new Set([...x].map((one, v) => `${one} ${y[v]}`)).size).toBe(n);
    }
  });
});

describe('circle', () => {
  it('has all nodes on one circle, as far apart as the closed form says', () => {
    const { x, y } = draw(complete(8), { method: 'circle' });
    const reach = Array.from(x, (_, v) => Math.hypot(x[v], y[v]));
    reach.forEach((r) => expect(r).toBeCloseTo(reach[0], 3));
    const order = [...x.keys()].sort((a, b) => Math.atan2(y[a], x[a]) - Math.atan2(y[b], x[b]));
    expect(Math.hypot(x[order[0]] - x[order[1]], y[order[0]] - y[order[1]])).toBeCloseTo(
      2 * reach[0] * Math.sin(Math.PI / 8),
      2,
    );
  });

  it('goes round a ring of ties without a crossing', () => {
    const chance = new Random(4);
    const order = chance.shuffle(Uint32Array.from({ length: 12 }, (_, v) => v));
    const ring = makeGraph(
      12,
      order,
      Uint32Array.from(order, (_, i) => order[(i + 1) % 12]),
    );
    const { x, y } = draw(ring, { method: 'circle' });
    expect(countCrossings(ring, x, y)).toBe(0);
  });
});

describe('the round point', () => {
  it('is sine and cosine without either', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (share) => {
        const { x, y } = roundPoint(share);
        return (
          Math.abs(x - Math.sin(2 * Math.PI * share)) < 1e-8 &&
          Math.abs(y + Math.cos(2 * Math.PI * share)) < 1e-8
        );
      }),
    );
  });
});

describe('grid and axes', () => {
  it('stand in rows by falling value', () => {
    const { x, y } = draw(makeGraph(6, [], []), { method: 'grid' }, { first: [1, 6, 2, 5, 3, NaN] });
    const order = [0, 1, 2, 3, 4, 5].sort((a, b) => y[a] - y[b] || x[a] - x[b]);
    expect(order).toEqual([1, 3, 4, 2, 0, 5]);
  });

  it('stand by two columns, more being right and above', () => {
    const { x, y } = draw(line(4), { method: 'axes' }, { first: [0, 1, 2, 3], second: [5, 1, 9, 3] });
    expect([...x.keys()].sort((a, b) => x[a] - x[b])).toEqual([0, 1, 2, 3]);
    expect([...y.keys()].sort((a, b) => y[b] - y[a])).toEqual([1, 3, 0, 2]);
  });
});

describe('rings', () => {
  it('have the highest values inside and what has none outside', () => {
    const values = [3, 3, 2, 1, NaN];
    expect([...ringsOf([0, 1, 2, 3, 4], values)]).toEqual([
      [0, 0],
      [1, 0],
      [2, 1],
      [3, 2],
      [4, 3],
    ]);
    const { x, y } = draw(line(5), { method: 'rings' }, { first: values });
    const reach = [...x.keys()].map((v) => Math.hypot(x[v], y[v]));
    expect(reach[0]).toBeLessThan(reach[2]);
    expect(reach[2]).toBeLessThan(reach[3]);
    expect(reach[3]).toBeLessThan(reach[4]);
  });

  it('put equal values on one ring, also where there are many', () => {
    const values = Array.from({ length: 200 }, (_, v) => Math.floor(v / 3));
    const ring = ringsOf([...values.keys()], values);
    for (let v = 1; v < 200; v++) if (values[v] === values[v - 1]) expect(ring.get(v)).toBe(ring.get(v - 1));
    expect(new Set(ring.values()).size).toBeLessThanOrEqual(6);
  });
});

describe('stress (Gansner, Koren & North 2004)', () => {
  it('draws a path as a straight line, with a stress of 0', () => {
    const path = line(12);
    const { x, y } = draw(path, { method: 'stress', iterations: 2000, separate: false });
    expect(normalisedStress(allDistances(neighbourRows(path)), x, y)).toBeLessThan(0.002);
  });

  it('is lower than that of attraction in the karate club, and of chance', () => {
    const { graph } = zachary();
    const distance = allDistances(neighbourRows(graph));
    const stress = (settings: object): number => {
      const { x, y } = draw(graph, settings);
      return normalisedStress(distance, x, y);
    };
    expect(stress({ method: 'stress' })).toBeLessThan(stress({ method: 'attraction' }));
    const chance = new Random(1);
    const anywhere = Float64Array.from({ length: 34 }, () => chance.real());
    expect(normalisedStress(distance, anywhere, anywhere.slice().reverse())).toBeGreaterThan(0.2);
    expect(normalisedStress(distance, new Float64Array(34), new Float64Array(34))).toBe(1);
  });

  it('refuses what is too large, with a sentence', () => {
    expect(() => draw(line(3001), { method: 'stress' })).toThrow(/at most 3000 nodes/);
  });
});

describe('few crossings', () => {
  it.each([
    ['K4', complete(4), 0],
    ['K5', complete(5), 1],
    ['the Petersen graph', petersen, 2],
  ])(
    'finds the crossing number of %s (known: Guy 1972 for complete graphs; of the Petersen graph from memory)',
    (_, graph, known) => {
      const { x, y } = draw(graph, { method: 'few-crossings', iterations: 1000 });
      expect(countCrossings(graph, x, y)).toBe(known);
    },
  );

  it('has no more crossings than attraction in the karate club', () => {
    const { graph } = zachary();
    const crossings = (method: string): number => {
      const { x, y } = draw(graph, { method, iterations: 1000 });
      return countCrossings(graph, x, y);
    };
    expect(crossings('few-crossings')).toBeLessThan(crossings('attraction'));
  }, 60_000);
});

describe('columns', () => {
  it('stand apart by sort, in an order without crossings where there is one', () => {
    // Three people, three meetings, each person at its own and the next.
    const graph = makeGraph(6, [0, 1, 2, 0, 1], [5, 3, 4, 3, 4]);
    const sides = Uint8Array.of(0, 0, 0, 1, 1, 1);
    const { x, y } = draw(graph, { method: 'columns' }, { sides });
    expect(Math.max(...x.slice(0, 3))).toBeLessThan(Math.min(...x.slice(3)));
    expect(countCrossings(graph, x, y)).toBe(0);
  });

  it('count crossings as going through all pairs does', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(6), fc.nat(6)), { maxLength: 20 }), (ties) => {
        const [left, right] = [ties.map(([a]) => a), ties.map(([, b]) => b)];
        let all = 0;
        ties.forEach(([a, b], e) =>
          ties.slice(0, e).forEach(([c, d]) => {
            if ((a - c) * (b - d) < 0) all++;
          }),
        );
        return columnCrossings(left, right) === all;
      }),
    );
  });
});

const mean = (values: ArrayLike<number>): number =>
  Array.from(values).reduce((sum, one) => sum + one, 0) / values.length;

describe('islands', () => {
  it('stand apart: no node is nearer to the middle of another group', () => {
    const { graph, group } = planted(5, 4, 20, 0.3, 0.02);
    const { x, y } = draw(graph, { method: 'islands' }, { groups: Uint32Array.from(group) });
    const middle = [0, 1, 2, 3].map((g) => {
      const own = [...group.keys()].filter((v) => group[v] === g);
      return [own.reduce((s, v) => s + x[v], 0) / own.length, own.reduce((s, v) => s + y[v], 0) / own.length];
    });
    for (let v = 0; v < graph.nodeCount; v++) {
      const reach = middle.map(([mx, my]) => Math.hypot(x[v] - mx, y[v] - my));
      expect(reach.indexOf(Math.min(...reach))).toBe(group[v]);
    }
  });
});

describe('attraction', () => {
  it('pulls communities farther apart where that is asked', () => {
    const { graph, group } = planted(1, 4, 40, 0.3, 0.02);
    const ratio = (apart: string): number => {
      const { x, y } = draw(graph, { apart });
      let [inside, outside, n, m] = [0, 0, 0, 0];
      for (let a = 0; a < 160; a++)
        for (let b = 0; b < a; b++) {
          const d = Math.hypot(x[a] - x[b], y[a] - y[b]);
          if (group[a] === group[b]) [inside, n] = [inside + d, n + 1];
          else [outside, m] = [outside + d, m + 1];
        }
      return outside / m / (inside / n);
    };
    expect(ratio('far')).toBeGreaterThan(ratio('little'));
  });

  it('draws nodes with many ties to the middle, or pushes them to the rim', () => {
    // Groups of a star each, whose middles are tied round.
    const ends: [number[], number[]] = [[], []];
    for (let hub = 0; hub < 60; hub += 10)
      for (let v = hub + 1; v <= hub + 10; v++) {
        ends[0].push(hub);
        ends[1].push(v % 60);
      }
    const graph = makeGraph(60, ...ends);
    const reach = (hubs: LayoutSettings['hubs']): number => {
      const { x, y } = draw(graph, { hubs });
      const far = (v: number): number => Math.hypot(x[v] - mean(x), y[v] - mean(y));
      const all = [...graph.source.keys()].map(far);
      const ofHubs = [0, 10, 20, 30, 40, 50].map(far);
      return mean(ofHubs) / mean(all);
    };
    expect(reach('middle')).toBeLessThan(reach('usual'));
    expect(reach('rim')).toBeGreaterThan(reach('usual'));
  });

  it.each([1, 2, 3])(
    'sets the most tied of a network that grew by preferential attachment (Barabási & Albert 1999) outside the others: %i',
    (seed) => {
      const chance = new Random(seed);
      const [source, target, ends]: number[][] = [[0], [1], [0, 1]];
      for (let v = 2; v < 200; v++)
        for (const u of [ends[chance.below(ends.length)], ends[chance.below(ends.length)]]) {
          if (u === v) continue;
          source.push(v);
          target.push(u);
          ends.push(v, u);
        }
      const graph = makeGraph(200, source, target);
      const ties = new Array<number>(200).fill(0);
      for (const v of [...source, ...target]) ties[v]++;
      const most = [...ties.keys()].sort((a, b) => ties[b] - ties[a]).slice(0, 10);
      const reach = (hubs: LayoutSettings['hubs']): number => {
        const { x, y } = draw(graph, { hubs });
        const far = (v: number): number => Math.hypot(x[v] - mean(x), y[v] - mean(y));
        return mean(most.map(far)) / mean([...ties.keys()].map(far));
      };
      expect(reach('middle')).toBeLessThan(reach('usual'));
      expect(reach('usual')).toBeLessThan(1);
      expect(reach('rim')).toBeGreaterThan(1.1);
    },
  );

  it('begins large networks from smaller pictures of themselves (Hu 2005), which unfolds them sooner', () => {
    // A long band: from chance it stays folded for hundreds of rounds.
    const n = 2400;
    const band = makeGraph(
      n,
      [...Array.from({ length: n - 1 }, (_, i) => i), ...Array.from({ length: n - 6 }, (_, i) => i)],
      [...Array.from({ length: n - 1 }, (_, i) => i + 1), ...Array.from({ length: n - 6 }, (_, i) => i + 6)],
    );
    const { x, y } = draw(band, { iterations: 60 });
    const step = Math.hypot(x[0] - x[6], y[0] - y[6]);
    const whole = Math.max(...[600, 1200, 1800, 2399].map((v) => Math.hypot(x[0] - x[v], y[0] - y[v])));
    expect(whole / step).toBeGreaterThan(20);
  });
});

describe('legibility', () => {
  const square = makeGraph(4, [0, 1, 2, 3, 0, 1], [1, 2, 3, 0, 2, 3]);
  const places = { x: [0, 100, 100, 0], y: [0, 0, 100, 100], radius: [5, 5, 5, 5] };
  const all = (graph: Graph) => [
    Uint32Array.from({ length: graph.nodeCount }, (_, v) => v),
    Uint32Array.from(graph.source.keys()),
  ];

  it('counts crossings, overlaps and kept neighbours of a square with both diagonals', () => {
    const [nodes, edges] = all(square);
    expect(legibility(square, nodes, edges, places)).toMatchObject({
      crossings: 1,
      crossingsAreEstimated: false,
      overlaps: 0,
      neighboursKept: 1,
    });
    expect(legibility(square, nodes, edges, { ...places, radius: [51, 51, 51, 51] }).overlaps).toBe(4);
    expect(legibility(square, nodes, edges.slice(0, 4), places).crossings).toBe(0);
  });

  it('estimates crossings of many ties well', () => {
    const { graph } = randomTwin(3, 60, 400);
    const chance = new Random(2);
    const [x, y] = [0, 1].map(() => Float64Array.from({ length: 60 }, () => chance.real()));
    const exact = countCrossings(graph, x, y);
    expect(Math.abs(estimateCrossings(graph, x, y, 200_000, new Random(1)) / exact - 1)).toBeLessThan(0.05);
  });

  it('counts chords that cross as the picture has them', () => {
    const { graph } = randomTwin(8, 14, 40);
    const order = Float64Array.from({ length: 14 }, (_, v) => v);
    const x = Float64Array.from(order, (v) => Math.cos((2 * Math.PI * v) / 14));
    const y = Float64Array.from(order, (v) => Math.sin((2 * Math.PI * v) / 14));
    expect(chordCrossings(graph, order)).toBe(countCrossings(graph, x, y));
  });
});
