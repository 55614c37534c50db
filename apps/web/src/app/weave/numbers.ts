/** A number that was typed, as a whole one of at least 1. */
export function atLeastOne(typed: number | null): number {
  return Math.max(1, Math.floor(typed ?? 1));
}

/** A number that was typed, null where nothing was. */
export function numberOrNone(typed: number | null, least = 1): number | null {
  return typed === null || Number.isNaN(typed) ? null : Math.max(least, Math.floor(typed));
}
