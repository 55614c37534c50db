import { formatCount } from './sentence';

/** A number as it is shown to people: whole numbers in groups of three, small ones with three digits. */
export function formatValue(value: number): string {
  if (!Number.isFinite(value)) return 'none';
  if (Number.isInteger(value)) return formatCount(value);
  const size = Math.abs(value);
  if (size >= 100) return formatCount(Math.round(value));
  if (size >= 1) return value.toFixed(1);
  if (size >= 0.001) return value.toFixed(3);
  return value.toExponential(1);
}

/** A bound as it was set: 1,200, or 0.13. */
export function formatBound(value: number): string {
  return Number.isInteger(value) ? formatCount(value) : String(value);
}
