import { parseTemplate } from 'url-template';
import type { PathOf, QueryOf, Route } from './route';

/** Where the API lies on its server. */
export const API = '/api/v1';

/** The address of a route on the server it belongs to. Parts of the query that are empty or not set are left out. */
export function addressOf<R extends Route>(
  { path }: R,
  parts: PathOf<R>,
  query: Partial<QueryOf<R>> | undefined = undefined,
): string {
  const asked = Object.entries(query ?? {}).filter(([, value]) => !isEmpty(value));
  const text = new URLSearchParams(asked.map(([name, value]) => [name, String(value)])).toString();
  return API + parseTemplate(path).expand(parts) + (text && `?${text}`);
}

function isEmpty(value: unknown): boolean {
  return value === undefined || value === null || value === '';
}
