import type { Params } from '@angular/router';
import { MessageFilter } from '@pebble/contract';

/** The filter that an address asks for; nothing where it cannot be read. */
export function filterOf(params: Params): MessageFilter {
  return MessageFilter.safeParse(params).data ?? {};
}

/** A filter as it stands in the address, so that it is the same after a reload and by the back key. */
export function addressOf(filter: MessageFilter): Params {
  const asked = Object.entries(filter).filter(([, value]) => value !== undefined && value !== '');
  return Object.fromEntries(asked.map(([name, value]) => [name, String(value)]));
}

export function isSame(a: Params, b: Params): boolean {
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name]);
}
