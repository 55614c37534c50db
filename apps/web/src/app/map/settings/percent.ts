/** A share in per cent: whole ones, or with a digit below 1; a dash for none. */
export function percent(share: number): string {
  if (Number.isNaN(share)) return '–';
  return share > 0 && share < 0.01 ? `${(100 * share).toFixed(1)} %` : `${Math.round(100 * share)} %`;
}
