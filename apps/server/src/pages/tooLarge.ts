import { formatCount, type HeldMap } from '@pebble/core';

/** A larger file opens in no browser in good time. */
const MOST_BYTES = 50_000_000;

/** Why a page of so many bytes cannot be saved, and what to leave out; null where it can. */
export function tooLarge(
  bytes: number,
  { messages, days }: Pick<HeldMap, 'messages' | 'days'>,
): string | null {
  if (bytes <= MOST_BYTES) return null;
  const leave = [
    ...(messages ? ['the texts of messages'] : []),
    ...(days ? ['time'] : []),
    'columns that are not needed',
    'nodes and ties that the map need not show',
  ];
  return `The page would be ${formatCount(Math.round(bytes / 1e6))} MB large; more than ${MOST_BYTES / 1e6} open in no browser in good time. Leave out ${leave.join(', or ')}.`;
}
