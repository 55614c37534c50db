import type { Decision, NewDecision, TidyKind } from '@pebble/contract';

/** What was decided of the things of one sort, ready to be asked. */
export interface Resolution {
  /** The key of what a thing was merged into, through any number of mergers; its own where it was not. */
  canonical(key: string): string;
  /** The label that was given to what a thing is now; null where none was. */
  label(key: string): string | null;
  isDropped(key: string): boolean;
  kind(key: string): TidyKind | null;
  state(key: string): 'open' | 'kept' | 'dropped' | 'merged';
}

/** A merge that would lead back to where it begins. */
export class MergeCircle extends Error {
  constructor(readonly key: string) {
    super(`Merging “${key}” this way would lead in a circle.`);
  }
}

/**
 * Puts decisions of one sort together; of two that say different things of one key the later one holds. Keeping, dropping and merging
 * stand for each other; a name, a kind and categories stand beside them.
 * Throws MergeCircle.
 */
export function resolve(decisions: readonly NewDecision[]): Resolution {
  const fate = new Map<string, 'keep' | 'drop' | { readonly into: string }>();
  const labels = new Map<string, string>();
  const kinds = new Map<string, TidyKind>();
  for (const { key, verdict } of decisions) {
    switch (verdict.verdict) {
      case 'keep':
      case 'drop':
        fate.set(key, verdict.verdict);
        break;
      case 'merge':
        fate.set(key, { into: verdict.into });
        break;
      case 'rename':
        labels.set(key, verdict.label);
        break;
      case 'kind':
        kinds.set(key, verdict.kind);
        break;
      case 'category':
        break;
    }
  }
  const roots = new Map<string, string>();
  const canonical = (key: string): string => {
    const known = roots.get(key);
    if (known !== undefined) return known;
    let at = key;
    const seen = new Set([key]);
    for (;;) {
      const next = fate.get(at);
      if (typeof next !== 'object') break;
      at = next.into;
      if (seen.has(at)) throw new MergeCircle(key);
      seen.add(at);
    }
    roots.set(key, at);
    return at;
  };
  for (const key of fate.keys()) canonical(key);
  return {
    canonical,
    label: (key) => labels.get(canonical(key)) ?? null,
    isDropped: (key) => fate.get(canonical(key)) === 'drop',
    kind: (key) => kinds.get(canonical(key)) ?? null,
    state(key) {
      const own = fate.get(key);
      if (own === undefined) return labels.has(key) || kinds.has(key) ? 'kept' : 'open';
      return own === 'keep' ? 'kept' : own === 'drop' ? 'dropped' : 'merged';
    },
  };
}

/** The decisions that change a network: of each thing the last one about its fate, unless that keeps it, and its last name. */
export function effective<D extends NewDecision & { readonly sort?: string }>(decisions: readonly D[]): D[] {
  const last = new Map<string, D>();
  for (const decision of decisions) {
    const { verdict } = decision.verdict;
    if (verdict === 'kind' || verdict === 'category') continue;
    const about = `${decision.sort ?? ''} ${verdict === 'rename' ? 'name' : 'fate'} ${decision.key}`;
    last.delete(about);
    if (verdict !== 'keep') last.set(about, decision);
  }
  return [...last.values()];
}

/** Categories of things: for each category which one each thing is, by its key; the last decision of each holds. */
export function categoriesOf(decisions: readonly NewDecision[]): Map<string, Map<string, string>> {
  const categories = new Map<string, Map<string, string>>();
  for (const { key, verdict } of decisions) {
    if (verdict.verdict !== 'category') continue;
    let values = categories.get(verdict.name);
    if (!values) categories.set(verdict.name, (values = new Map<string, string>()));
    if (verdict.value === '') values.delete(key);
    else values.set(key, verdict.value);
  }
  return categories;
}

/** Numbers of things as they are after what was decided. */
export interface TidyNumbers {
  /** For each thing the number of what it is now; -1 for one that is left out. */
  readonly to: Int32Array;
  /** What was given as a label, by number; the others keep theirs. */
  readonly label: ReadonlyMap<number, string>;
  /** How many things became another one, and how many were left out. */
  readonly merged: number;
  readonly dropped: number;
}

/** Applies decisions to numbered things; null where they change nothing. @param keys the key of each thing */
export function tidyNumbers(keys: readonly string[], decisions: readonly Decision[]): TidyNumbers | null {
  const matters = effective(decisions);
  if (matters.length === 0) return null;
  const resolution = resolve(matters);
  const number = new Map<string, number>();
  keys.forEach((key, i) => !number.has(key) && number.set(key, i));
  const label = new Map<number, string>();
  let merged = 0;
  let dropped = 0;
  const to = Int32Array.from(keys, (key, i) => {
    const now = resolution.canonical(key);
    if (resolution.isDropped(key)) {
      dropped++;
      return -1;
    }
    // What a thing was merged into need not stand in these messages itself: the first of its parts takes its place.
    let at = number.get(now);
    if (at === undefined) number.set(now, (at = i));
    if (now !== key) merged++;
    const given = resolution.label(key);
    if (given !== null) label.set(at, given);
    return at;
  });
  return { to, label, merged, dropped };
}
