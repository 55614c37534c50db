import type { Random } from '../random';
import { contract, renumber, type Level } from './level';
import { moveNodes } from './moveNodes';

/** How much worse merges may be taken while communities are refined, in units of weight; 0.01 as its authors propose. */
const LOOSENESS = 0.01;
const PASSES = 2;

/**
 * One run of the Leiden method (Traag, Waltman & van Eck 2019, Scientific Reports 9): like Louvain, but communities are refined before they
 * become nodes, so that each of them hangs together. The whole is gone through again while it gains, twice at most.
 */
export function leidenRun(first: Level, resolution: number, chance: Random): Uint32Array {
  let found: Uint32Array = Uint32Array.from({ length: first.rows.nodeCount }, (_, v) => v);
  for (let pass = 0; pass < PASSES; pass++) {
    const before = found;
    found = onePass(first, resolution, chance, found);
    if (found.every((group, v) => group === before[v])) break;
  }
  return found;
}

function onePass(first: Level, resolution: number, chance: Random, start: Uint32Array): Uint32Array {
  let level = first;
  let groups = start;
  // Which node of the level each node of the network is in.
  const place = Uint32Array.from({ length: first.rows.nodeCount }, (_, v) => v);
  for (;;) {
    const { group, count } = moveNodes(level, resolution, chance, groups);
    if (count === level.rows.nodeCount) return renumber(Uint32Array.from(place, (at) => group[at])).group;
    const refined = refine(level, group, count, resolution, chance);
    const next = contract(level, refined.group, refined.count);
    groups = new Uint32Array(refined.count);
    refined.group.forEach((r, v) => (groups[r] = group[v]));
    // Where nothing could be merged, the communities themselves become nodes.
    if (refined.count === level.rows.nodeCount) {
      for (let v = 0; v < place.length; v++) place[v] = group[place[v]];
      return renumber(place).group;
    }
    for (let v = 0; v < place.length; v++) place[v] = refined.group[place[v]];
    level = next;
  }
}

/** Builds each community anew from single nodes, merging only what is well tied within it. */
function refine(
  { rows, strength, total }: Level,
  group: Uint32Array,
  count: number,
  resolution: number,
  chance: Random,
): { group: Uint32Array; count: number } {
  const { nodeCount: n, offset, neighbour, weight } = rows;
  const scale = total > 0 ? resolution / total : 0;
  const sums = new Float64Array(2 * count);
  for (let v = 0; v < n; v++) {
    sums[2 * group[v]] += strength[2 * v];
    sums[2 * group[v] + 1] += strength[2 * v + 1];
  }
  const part = Uint32Array.from({ length: n }, (_, v) => v);
  const partSums = strength.slice();
  const size = new Uint32Array(n).fill(1);
  // Weight from each part to the rest of its community.
  const outward = new Float64Array(n);
  for (let v = 0; v < n; v++)
    for (let i = offset[v]; i < offset[v + 1]; i++)
      if (neighbour[i] !== v && group[neighbour[i]] === group[v]) outward[v] += weight[i];
  const pull = (out: number, into: number, otherOut: number, otherInto: number): number =>
    scale * (out * otherInto + into * otherOut);
  const isWellTied = (r: number, g: number): boolean =>
    outward[r] >=
    pull(
      partSums[2 * r],
      partSums[2 * r + 1],
      sums[2 * g] - partSums[2 * r],
      sums[2 * g + 1] - partSums[2 * r + 1],
    );
  const toPart = new Float64Array(n);
  const touched = new Uint32Array(n);
  const odds = new Float64Array(n);
  for (const v of chance.shuffle(Uint32Array.from({ length: n }, (_, at) => at))) {
    const g = group[v];
    if (size[part[v]] !== 1 || !isWellTied(part[v], g)) continue;
    const own = part[v];
    let touchedCount = 0;
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      if (u === v || group[u] !== g) continue;
      if (toPart[part[u]] === 0) touched[touchedCount++] = part[u];
      toPart[part[u]] += weight[i];
    }
    const out = strength[2 * v];
    const into = strength[2 * v + 1];
    let most = 0;
    for (let t = 0; t < touchedCount; t++) {
      const r = touched[t];
      const gain = toPart[r] - pull(out, into, partSums[2 * r], partSums[2 * r + 1]);
      odds[t] = gain >= 0 && isWellTied(r, g) ? gain : -1;
      if (odds[t] > most) most = odds[t];
    }
    // Staying alone gains nothing, and is as likely as a merge that gains nothing.
    let all = Math.exp(-most / LOOSENESS);
    for (let t = 0; t < touchedCount; t++) {
      odds[t] = odds[t] < 0 ? 0 : Math.exp((odds[t] - most) / LOOSENESS);
      all += odds[t];
    }
    let drawn = chance.real() * all;
    let chosen = own;
    for (let t = 0; t < touchedCount; t++) {
      drawn -= odds[t];
      if (drawn < 0) {
        chosen = touched[t];
        break;
      }
    }
    if (chosen !== own) {
      part[v] = chosen;
      size[chosen]++;
      size[own] = 0;
      partSums[2 * chosen] += out;
      partSums[2 * chosen + 1] += into;
      outward[chosen] += outward[own] - 2 * toPart[chosen];
    }
    for (let t = 0; t < touchedCount; t++) toPart[touched[t]] = 0;
  }
  return renumber(part);
}
