import type * as z from 'zod';
import { ApiError } from './problems';

/**
 * A request as its schema says. A field that the schema does not know is refused by its name: left aside in silence, a misspelt threshold
 * would be no threshold. Throws ZodError, and ApiError for an unknown field.
 */
export function parseRequest<S extends z.ZodType>(schema: S, given: unknown): z.output<S> {
  const parsed = schema.parse(given);
  const unknown = unknownField(given, parsed, []);
  if (unknown) throw refused(unknown);
  return parsed;
}

interface Unknown {
  readonly path: readonly string[];
  /** The fields that there are in its place. */
  readonly known: readonly string[];
}

/** The first field of what was given that is not in what was understood. */
function unknownField(given: unknown, parsed: unknown, path: readonly string[]): Unknown | null {
  if (Array.isArray(given) && Array.isArray(parsed)) {
    for (const [i, one] of given.entries()) {
      const found = unknownField(one, parsed[i], [...path, String(i)]);
      if (found) return found;
    }
    return null;
  }
  if (!isPlain(given) || !isPlain(parsed)) return null;
  for (const [name, value] of Object.entries(given)) {
    const at = [...path, name];
    if (!Object.hasOwn(parsed, name)) return { path: at, known: Object.keys(parsed) };
    const found = unknownField(value, parsed[name], at);
    if (found) return found;
  }
  return null;
}

function isPlain(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function refused({ path, known }: Unknown): ApiError {
  const name = path[path.length - 1];
  const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');
  const meant = known.find((one) => plain(one) === plain(name));
  return new ApiError(
    400,
    'The request is not right',
    `There is no field “${name}”${path.length > 1 ? ` in “${path.slice(0, -1).join('.')}”` : ''}.${meant ? ` Is “${meant}” meant?` : ''}`,
    { field: path.join('.') },
  );
}
