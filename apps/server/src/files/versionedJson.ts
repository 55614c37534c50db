import { ZodError, type ZodType } from 'zod';
import { BadPackage } from './openedZip';

/** What is read: its schema, the newest version that is known, and what it is called at the beginning of a sentence. */
interface Expected<T> {
  readonly schema: ZodType<T>;
  readonly newest: number;
  readonly what: string;
}

/** A JSON file that says its version. Throws BadPackage with what is not right. */
export function versionedJson<T>(text: string, { schema, newest, what }: Expected<T>): T {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new BadPackage(`${what} is no JSON.`);
  }
  const version = (value as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > newest)
    throw new BadPackage(
      `It was saved by a later version of Pebble Thread (form ${version}; this one reads up to ${newest}).`,
    );
  try {
    return schema.parse(value);
  } catch (error) {
    if (!(error instanceof ZodError)) throw error;
    const [{ path, message }] = error.issues;
    throw new BadPackage(`${what} is not right (${path.join('.')}: ${message}).`);
  }
}
