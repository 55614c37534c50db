const DAY = 86_400_000;

/** What a memo points at: an account, a message by its number, or days (UTC, from one moment on and before another). */
export type Reference =
  | { readonly what: 'node'; readonly name: string }
  | { readonly what: 'message'; readonly message: number }
  | { readonly what: 'days'; readonly words: string; readonly from: number; readonly until: number };

const REFERENCE =
  /@(?<name>[\p{L}\p{N}_]+(?:[.@-][\p{L}\p{N}_]+)*)|\[message (?<message>\d+)\]|(?<first>\d{4}-\d{2}-\d{2})(?: to (?<last>\d{4}-\d{2}-\d{2}))?/gu;

/** "@ann", "[message 12]", "2026-04-01" and "2026-04-01 to 2026-04-07" in the order of a memo, each once. */
export function referencesIn(memo: string): Reference[] {
  const found = new Map<string, Reference>();
  for (const { 0: words, groups } of memo.matchAll(REFERENCE)) {
    const reference = referenceOf(words, groups ?? {});
    if (reference && !found.has(words)) found.set(words, reference);
  }
  return [...found.values()];
}

function referenceOf(
  words: string,
  { name, message, first, last = first }: Readonly<Record<string, string | undefined>>,
): Reference | null {
  if (name !== undefined) return { what: 'node', name };
  if (message !== undefined) return { what: 'message', message: Number(message) };
  const [from, until] = [Date.parse(`${first}T00:00:00Z`), Date.parse(`${last}T00:00:00Z`) + DAY];
  return Number.isNaN(from) || Number.isNaN(until) || until <= from
    ? null
    : { what: 'days', words, from, until };
}

/** How a message is pointed at. */
export const referenceTo = (message: number): string => `[message ${message}]`;
