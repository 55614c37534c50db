import type { TidyKind } from '@pebble/contract';
import { nameKey, plainText } from './tokens';

/** A name as it was found in a text. */
export interface FoundName {
  readonly label: string;
  readonly kind: TidyKind;
}

/** Finds the names of a text, each once. */
export type NameFinder = (text: string) => FoundName[];

/** Names of fewer letters are slips of the finder more often than not. */
const SHORTEST = 3;

/**
 * People, organisations and places by the compromise library: English alone, by lists and the shape of sentences, without a download. It is
 * right in most cases and not in all; what it finds is to be reviewed. The library is read when it is first asked for: it takes as long as
 * all others together.
 */
export async function libraryNames(): Promise<NameFinder> {
  const { default: nlp } = await import('compromise');
  return (text) => {
    const read = nlp(plainText(text));
    const found = new Map<string, FoundName>();
    const take = (labels: string[], kind: TidyKind): void => {
      for (const label of labels.map(trimmed)) {
        const key = nameKey(label);
        // A name begins with a capital; whole sentences in capitals tell nothing.
        if (label.length >= SHORTEST && /^\p{Lu}/u.test(label) && !found.has(key))
          found.set(key, { label, kind });
      }
    };
    take(read.organizations().out('array') as string[], 'organisation');
    take(read.people().out('array') as string[], 'person');
    take(read.places().out('array') as string[], 'place');
    return [...found.values()];
  };
}

/** Marks at its ends, an article before it and an 's behind it are no part of a name. */
function trimmed(label: string): string {
  return label
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')
    .replace(/['’]s$/u, '')
    .replace(/^(?:the|a|an)\s+(?=\p{Lu})/iu, '')
    .trim();
}

/**
 * Names of a researcher's own list.
 * @param match whole words, or beginnings of words
 */
export function listNames(
  names: readonly string[],
  match: 'words' | 'beginnings',
  kind: TidyKind,
): NameFinder {
  const byKey = new Map(
    names.map((name) => [nameKey(name), name.trim()]).filter(([key]) => key !== '') as [string, string][],
  );
  if (byKey.size === 0) return () => [];
  // The longest first, so that a name inside another one is not taken for it.
  const parts = [...byKey.keys()]
    .sort((a, b) => b.length - a.length || (a < b ? -1 : 1))
    .map((key) => key.replace(/[.*+?^${}()|[\]\\&-]/g, '\\$&'));
  const end = match === 'words' ? String.raw`(?![\p{L}\p{N}])` : '';
  const pattern = new RegExp(String.raw`(?<![\p{L}\p{N}])(?:${parts.join('|')})${end}`, 'gu');
  return (text) => {
    const keys = new Set(nameKey(text).match(pattern) ?? []);
    return [...keys].map((key) => ({ label: byKey.get(key)!, kind }));
  };
}
