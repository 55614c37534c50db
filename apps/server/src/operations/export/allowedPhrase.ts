import type { StepParameters } from '@pebble/contract';
import { counted } from '@pebble/core';

/** That people can be found in it, and why it went out all the same; empty where nobody can. */
export function allowedPhrase(allowed: StepParameters<'export-figure'>['allowed']): string {
  if (allowed === null) return '';
  return ` In ${counted(allowed.found, 'place')} people can be found in it; allowed since: ${allowed.reason}.`;
}
