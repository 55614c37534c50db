import { Random } from '../../../../random';
import type { Chords } from './compatibility';
import { bundling, writeCourse, COURSE_ROOM, type CourseInput, type BundledPaths } from './bundledPaths';
import { bundledLines, INNER, type BundledLines } from './forces';
import { matesOf, MOST_MATES } from './compatibleEdges';

type Line = readonly [number, number, number, number];
const MIDDLE = (INNER - 1) / 2;

function chords(...lines: readonly Line[]): Chords {
  const part = (i: number): Float64Array => Float64Array.from(lines, (line) => line[i]);
  return { ax: part(0), ay: part(1), bx: part(2), by: part(3) };
}

function end<T>(run: Generator<number, T>): { value: T; told: number[] } {
  const told: number[] = [];
  for (;;) {
    const step = run.next();
    if (step.done) return { value: step.value, told };
    told.push(step.value);
  }
}

const drawn = (...lines: readonly Line[]): BundledLines => end(bundledLines(chords(...lines))).value;

/** Ties between places as lines, each with nodes of its own. */
function tiesAt(...lines: readonly Line[]): CourseInput {
  return {
    edges: Uint32Array.from(lines, (_, e) => e),
    source: lines.map((_, e) => 2 * e),
    target: lines.map((_, e) => 2 * e + 1),
    weight: lines.map(() => 1),
    x: lines.flatMap(([ax, , bx]) => [ax, bx]),
    y: lines.flatMap(([, ay, , by]) => [ay, by]),
  };
}

describe('lines that run alike', () => {
  it('come together half way, and spread to their ends', () => {
    const { y } = drawn([0, 0, 1000, 0], [0, 100, 1000, 100]);
    const gap = (k: number): number => y[INNER + k] - y[k];
    expect(gap(MIDDLE)).toBeLessThan(20);
    expect(gap(0)).toBeGreaterThan(2 * gap(MIDDLE));
    // Both give way alike.
    expect(y[MIDDLE] + y[INNER + MIDDLE]).toBeCloseTo(100, 6);
  });

  it('come together also where one is told from its other end', () => {
    const same = drawn([0, 0, 1000, 0], [0, 100, 1000, 100]);
    const turned = drawn([0, 0, 1000, 0], [1000, 100, 0, 100]);
    expect(turned.y[MIDDLE]).toBeCloseTo(same.y[MIDDLE], 9);
    expect(turned.y[INNER]).toBeCloseTo(same.y[2 * INNER - 1], 9);
  });

  it('that cross at a right angle, or are of very different lengths, stay straight', () => {
    const { y, mates } = drawn([0, 0, 1000, 0], [500, -500, 500, 500], [0, 10, 100, 10]);
    expect([...mates.count]).toEqual([0, 0, 0]);
    expect([...y.subarray(0, INNER)]).toEqual(Array.from({ length: INNER }, () => 0));
  });

  it('come together alike in every unit of the places', () => {
    const small = drawn([0, 0, 1, 0], [0, 0.1, 1, 0.1]);
    const large = drawn([0, 0, 4096, 0], [0, 409.6, 4096, 409.6]);
    small.y.forEach((y, k) => expect(large.y[k] / 4096).toBeCloseTo(y, 9));
  });
});

describe('mates', () => {
  it('go both ways, and of many a sample is kept', () => {
    const many = chords(...Array.from({ length: 120 }, (_, i): Line => [0, i, 1000, i]));
    const { value } = end(matesOf(many));
    expect([...value.alike]).toEqual(Array.from({ length: 120 }, () => 119));
    for (let p = 0; p < 120; p++) {
      expect(value.count[p]).toBe(MOST_MATES);
      const own = [...value.of.subarray(p * MOST_MATES, (p + 1) * MOST_MATES)];
      expect(new Set(own).size).toBe(MOST_MATES);
      expect(own).not.toContain(p);
    }
  });
});

describe('courses of ties', () => {
  const along = (
    courses: BundledPaths,
    edge: number,
    x: number[],
    y: number[],
    tightness: number,
  ): Float64Array => {
    const out = new Float64Array(COURSE_ROOM);
    const places = { x: Float32Array.from(x), y: Float32Array.from(y) };
    expect(writeCourse(courses, edge, 2 * edge, 2 * edge + 1, places, tightness, out)).toBe(INNER);
    return out;
  };
  const input = tiesAt([0, 0, 1000, 0], [0, 100, 1000, 100], [500, -400, 500, 400]);
  const courses = end(bundling(input)).value;

  it('are those of the forces, and straight where they are quite loose', () => {
    const tight = along(courses, 0, [0, 1000, 0, 1000], [0, 0, 100, 100], 1);
    expect(tight[4 * MIDDLE + 1]).toBeGreaterThan(40);
    const loose = along(courses, 0, [0, 1000, 0, 1000], [0, 0, 100, 100], 0);
    for (let k = 0; k < INNER; k++) expect(loose[4 * k + 1]).toBe(0);
    expect([...loose.subarray(COURSE_ROOM - 2)]).toEqual([1000, 0]);
  });

  it('go along when the nodes are moved, turned and drawn larger', () => {
    const before = along(courses, 0, [0, 1000], [0, 0], 1);
    // Turned by a right angle, twice as large, and somewhere else.
    const after = along(courses, 0, [30, 30], [10, 2010], 1);
    for (let k = 0; k < INNER; k++) {
      expect(after[4 * k]).toBeCloseTo(30 - 2 * before[4 * k + 1], 6);
      expect(after[4 * k + 1]).toBeCloseTo(10 + 2 * before[4 * k], 6);
    }
  });

  it('are not given to ties that nothing runs along, nor to self-ties', () => {
    expect(courses.of[2]).toBe(-1);
    const loop = end(bundling({ ...input, target: [1, 3, 4] })).value;
    expect(loop.of[2]).toBe(-1);
    expect(loop.ties).toBe(2);
  });

  it('are told of while they are worked out, and the same bits each time', () => {
    const chance = new Random(5);
    const some = tiesAt(
      ...Array.from({ length: 300 }, (): Line => [
        chance.below(100),
        chance.below(900),
        900 + chance.below(100),
        chance.below(900),
      ]),
    );
    const first = end(bundling(some));
    expect(first.told).toEqual([...first.told].sort((a, b) => a - b));
    expect(first.told.at(-1)).toBeCloseTo(1, 9);
    expect(
      Buffer.from(end(bundling(some)).value.aside.buffer).equals(Buffer.from(first.value.aside.buffer)),
    ).toBe(true);
  });

  it('cover less of the ground than straight ties between the same groups', () => {
    const chance = new Random(2);
    const between = tiesAt(
      ...Array.from({ length: 400 }, (): Line => [
        chance.below(150),
        chance.below(500),
        850 + chance.below(150),
        chance.below(500),
      ]),
    );
    const { value } = end(bundling(between));
    const cells = (tightness: number): number => {
      const covered = new Set<number>();
      for (let e = 0; e < 400; e++) {
        const out = new Float64Array(COURSE_ROOM);
        const places = { x: Float32Array.from(between.x), y: Float32Array.from(between.y) };
        if (writeCourse(value, e, 2 * e, 2 * e + 1, places, tightness, out) === 0) continue;
        for (let k = 0; k < INNER; k++)
          covered.add(Math.floor(out[4 * k] / 8) * 1000 + Math.floor(out[4 * k + 1] / 8));
      }
      return covered.size;
    };
    expect(cells(1)).toBeLessThan(0.7 * cells(0));
  });

  it('are given to the strongest where there are very many, and the others are counted', () => {
    const many = tiesAt(...Array.from({ length: 10 }, (_, i): Line => [0, i, 100, i]));
    const weight = [1, 1, 2, 1, 2, 2, 2, 2, 1, 1];
    const { value } = end(bundling({ ...many, weight }, 7));
    expect([value.ties, value.left]).toEqual([7, 3]);
    expect([...value.of].flatMap((course, e) => (course < 0 ? [e] : []))).toEqual([3, 8, 9]);
  });
});
