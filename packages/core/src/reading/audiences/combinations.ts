import type { Audiences } from '@pebble/contract';

/** In which sets each member is: a bit for each set, by the number of the member. */
export function membership(sets: readonly (Uint32Array | readonly number[])[]): Uint32Array {
  if (sets.length > 32) throw new RangeError('At most 32 sets can be combined.');
  let last = -1;
  for (const set of sets) for (const member of set) if (member > last) last = member;
  const masks = new Uint32Array(last + 1);
  sets.forEach((set, s) => {
    const bit = (1 << s) >>> 0;
    for (const member of set) masks[member] = (masks[member] | bit) >>> 0;
  });
  return masks;
}

/** Whether a member is in all of some sets, and in none of others. */
export function isWithin(mask: number, inside: readonly number[], outside: readonly number[]): boolean {
  const has = (set: number): boolean => ((mask >>> set) & 1) === 1;
  return inside.every(has) && !outside.some(has);
}

export function setsOf(mask: number): number[] {
  const sets: number[] = [];
  for (let s = 0; s < 32; s++) if ((mask >>> s) & 1) sets.push(s);
  return sets;
}

/**
 * How many members are in exactly which sets, the largest combinations first (as in Lex et al. 2014, IEEE Transactions on Visualization and
 * Computer Graphics 20(12)); those beyond `most` are summed up. Also how many any two sets share, beside chance: the product of their sizes
 * over the members of all.
 */
export function combinations(masks: Uint32Array, sets: number, most: number): Audiences {
  const counts = countMasks(masks, sets);
  const found = [...counts].sort(([a, n], [b, m]) => m - n || a - b);
  const members = found.reduce((sum, [, n]) => sum + n, 0);
  const sizes = new Array<number>(sets).fill(0);
  const shared = new Float64Array(sets * sets);
  for (const [mask, n] of found) {
    const own = setsOf(mask);
    for (const a of own) {
      sizes[a] += n;
      for (const b of own) shared[a * sets + b] += n;
    }
  }
  const pairs: Audiences['pairs'] = [];
  for (let a = 0; a < sets; a++)
    for (let b = a + 1; b < sets; b++) {
      const both = shared[a * sets + b];
      const [smaller, either] = [Math.min(sizes[a], sizes[b]), sizes[a] + sizes[b] - both];
      pairs.push({
        a,
        b,
        both,
        share: smaller > 0 ? both / smaller : 0,
        jaccard: either > 0 ? both / either : 0,
        byChance: members > 0 ? (sizes[a] * sizes[b]) / members : 0,
      });
    }
  const rest = found.slice(most);
  return {
    sizes,
    members,
    combinations: found.slice(0, most).map(([mask, n]) => ({ sets: setsOf(mask), members: n })),
    further: { combinations: rest.length, members: rest.reduce((sum, [, n]) => sum + n, 0) },
    pairs,
  };
}

/** Few sets are counted in an array, many in a map. */
const FEW_SETS = 16;

function countMasks(masks: Uint32Array, sets: number): Map<number, number> {
  if (sets <= FEW_SETS) {
    const counts = new Float64Array(1 << sets);
    for (const mask of masks) counts[mask]++;
    const found = new Map<number, number>();
    counts.forEach((n, mask) => {
      if (mask > 0 && n > 0) found.set(mask, n);
    });
    return found;
  }
  const counts = new Map<number, number>();
  for (const mask of masks) if (mask > 0) counts.set(mask, (counts.get(mask) ?? 0) + 1);
  return counts;
}
