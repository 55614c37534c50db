import { handleKey } from '@pebble/core';

/** What stands in the place of a name that was forgotten. */
export const FORGOTTEN = 'forgotten';

/** Characters that go on a handle: what follows or stands before one of them is part of another name. */
const PART = '[\\p{L}\\p{N}_]';

/** Where a handle stands: in what people wrote, where it may be a word of the language too, or in what the application keeps. */
type Where = 'written' | 'kept';

/**
 * Replaces a handle in texts, whole names only: "ann" in "@ann." and "https://hub.example/@ann/7", and not in "annual". Of a handle with a
 * host ("ann@hub.example") the first part alone counts where it is mentioned ("@ann"), as texts write it. In what people wrote, a handle
 * that could be a word ("lamps") is replaced where it is mentioned or stands in a link, and left where it is a word.
 */
export function handleReplacer(
  handle: string,
  where: Where = 'kept',
): { readonly sought: string; replace(text: string): string } {
  const whole = handleKey(handle);
  const [first] = whole.split('@');
  const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const couldBeWord = where === 'written' && !/[\d_.@-]/.test(whole);
  const before = couldBeWord ? '(?<=[@＠/])' : `(?<!${PART}|[-.])`;
  const parts = [
    `${before}${escaped(whole)}(?!${PART}|-${PART})`,
    ...(first === whole || first === '' ? [] : [`(?<=[@＠])${escaped(first)}(?!${PART}|@|[-.]${PART})`]),
  ];
  const pattern = new RegExp(parts.join('|'), 'giu');
  return { sought: first || whole, replace: (text) => text.replace(pattern, FORGOTTEN) };
}
