import type { OneAndMany } from '../kind';

/** Sorts of nodes whose plural is not made by an s. */
const PLURAL: Readonly<Record<string, string>> = { person: 'people' };

export const sortWords = (sort: string): OneAndMany => [sort, PLURAL[sort] ?? `${sort}s`];
