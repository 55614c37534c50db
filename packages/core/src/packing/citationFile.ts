import type { Reference } from '@pebble/contract';
import { stringify } from 'yaml';
import { authorsOf, knownLicence, type PackedWork } from './packed';

const TYPES = {
  'article-journal': 'article',
  book: 'book',
  'paper-conference': 'conference-paper',
  report: 'report',
} as const;

/** How a package is cited, as a citation file (Citation File Format 1.2.0), with the works that it builds on. */
export function citationFile(work: PackedWork, references: readonly Reference[]): string {
  const authors = authorsOf(work);
  const licence = knownLicence(work.licence);
  return stringify({
    'cff-version': '1.2.0',
    message: 'If you use this map or its tables, please cite them as follows.',
    type: 'dataset',
    title: work.title,
    abstract: work.description,
    authors: authors.length > 0 ? authors.map((name) => ({ name })) : [{ name: 'Anonymous' }],
    'date-released': work.made.slice(0, 10),
    ...(licence ? { license: licence.id } : {}),
    ...(references.length > 0 ? { references: references.map(reference) } : {}),
  });
}

function reference(one: Reference): object {
  const { type, title, author, issued, volume, issue, page, publisher } = one;
  const [start, end] = page?.split('-') ?? [];
  return {
    type: TYPES[type],
    title: title ?? one['container-title'] ?? '',
    authors: author.map(({ family, given }) => ({ 'family-names': family, 'given-names': given })),
    year: issued['date-parts'][0][0],
    ...(type === 'article-journal' && one['container-title'] ? { journal: one['container-title'] } : {}),
    ...(volume ? { volume } : {}),
    ...(issue ? { issue } : {}),
    ...(start ? { start } : {}),
    ...(end ? { end } : {}),
    ...(publisher ? { publisher: { name: publisher } } : {}),
  };
}
