import { createHash } from 'node:crypto';
import type { Methods } from '@pebble/contract';
import {
  authorsOf,
  citationFile,
  dataPackage,
  provenance,
  roCrate,
  type PackedFile,
  type PackedWork,
} from '@pebble/core/documents';
import { fileName } from '../exports/writtenFile';
import { CHECKSUMS, DESCRIPTOR } from '../files/packageFile';
import type { ToPack } from './packedTables';

/** Writes what describes the files of a package, for people and by open standards for programs. */
export type Describer = (files: readonly PackedFile[]) => ToPack[];

type Trace = Parameters<typeof provenance>[0];

/** @param trace the record of the steps by which it came about */
export function describer(
  work: PackedWork,
  methods: Methods,
  trace: Pick<Trace, 'steps' | 'sources'>,
): Describer {
  return (files) => {
    const record = provenance({
      ...trace,
      title: work.title,
      authors: authorsOf(work),
      places: files.map(({ place }) => place),
      made: work.made,
    });
    const made: ToPack[] = [
      json(
        DESCRIPTOR,
        'Every file and every column, as a Frictionless Data Package.',
        dataPackage(idOf(work), work, files),
      ),
      json(
        'ro-crate-metadata.json',
        'The package as an RO-Crate 1.1.',
        roCrate(work, files),
        'application/ld+json',
      ),
      json('provenance.json', 'How it came about, as PROV-JSON (W3C).', record),
      text(
        'CITATION.cff',
        'How to cite it (Citation File Format 1.2.0).',
        citationFile(work, methods.references),
        'application/yaml',
      ),
      ...(work.licence === ''
        ? []
        : [text('LICENSE.txt', 'The licence.', `${work.title}\n\nLicence: ${work.licence}\n`, 'text/plain')]),
    ];
    const readme = text('README.md', 'What is in the package.', readmeOf(work, [...files, ...made]));
    return [...made, readme];
  };
}

/** The checksums of files, as sha256sum writes them. */
export function checksumsOf(files: readonly Pick<PackedFile, 'place' | 'sha256'>[]): ToPack {
  const lines = files.map(({ place, sha256 }) => `${sha256}  ${place}\n`);
  return text(CHECKSUMS, 'The SHA-256 of every other file.', lines.join(''), 'text/plain');
}

/** SHA-256, hexadecimal. */
export function sumOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

export function json(place: string, what: string, value: unknown, type = 'application/json'): ToPack {
  return text(place, what, `${JSON.stringify(value, null, 1)}\n`, type);
}

export function text(place: string, what: string, content: string, type = 'text/markdown'): ToPack {
  return { place, what, type, content: () => Buffer.from(content) };
}

/** A name of small letters, digits and "-". */
function idOf({ title }: PackedWork): string {
  const id = fileName(title, 'map')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return id || 'map';
}

function readmeOf(
  { title, author, licence, description, made }: PackedWork,
  files: readonly Pick<ToPack, 'place' | 'what'>[],
): string {
  const facts = [
    ...(author === '' ? [] : [`- By: ${author}`]),
    `- Licence: ${licence || 'none is given'}`,
    `- Made: ${made} with Pebble Thread`,
  ];
  const rows = files.map(({ place, what }) => `| ${place} | ${what} |`);
  return (
    [
      `# ${title}`,
      description,
      facts.join('\n'),
      'Pebble Thread opens this package as a map that can be worked on. Every other program reads the tables, figures and texts as they are. Cells of CSV files that a spreadsheet would run begin with an apostrophe; the Arrow files have them exactly. `sha256sum -c checksums.sha256` checks that nothing was changed.',
      ['| File | What it is |', '| --- | --- |', ...rows].join('\n'),
    ].join('\n\n') + '\n'
  );
}
