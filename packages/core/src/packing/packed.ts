/** A file of a package, as what describes the package knows it. */
export interface PackedFile {
  /** Where it lies in the package. */
  readonly place: string;
  /** What it is, in a sentence. */
  readonly what: string;
  /** Media type (RFC 6838). */
  readonly type: string;
  readonly bytes: number;
  /** SHA-256 (FIPS 180-4), hexadecimal. */
  readonly sha256: string;
  /** Its columns, where it is a table. */
  readonly table?: PackedTable;
}

/** A table of a package. */
export interface PackedTable {
  /** "nodes" */
  readonly name: string;
  readonly columns: readonly PackedColumn[];
  readonly primaryKey?: string;
  /** Columns whose values are those of a column of another table. */
  readonly foreignKeys?: readonly { readonly field: string; readonly table: string; readonly of: string }[];
}

/** A column, with what it says and how it was computed. */
export interface PackedColumn {
  readonly name: string;
  readonly type: 'string' | 'number' | 'integer' | 'datetime' | 'date';
  readonly title: string;
  readonly how: string;
}

/** What a package is as a whole. */
export interface PackedWork {
  readonly title: string;
  /** Names apart by ";", or by "," where each has one part. Empty where nobody is named. */
  readonly author: string;
  /** As it was written: "CC BY 4.0". Empty where none was given. */
  readonly licence: string;
  /** RFC 3339. */
  readonly made: string;
  /** What is in it, in some sentences. */
  readonly description: string;
}

/** The authors, one each: "A. Reader; B. Writer", or "A. Reader, B. Writer". */
export function authorsOf({ author }: Pick<PackedWork, 'author'>): string[] {
  const parts = author.split(author.includes(';') ? ';' : /,| and /);
  return parts.map((one) => one.trim()).filter((one) => one !== '');
}

/** Licences by the names that people write, with their identifiers (SPDX) and where they can be read. */
const LICENCES: readonly (readonly [written: RegExp, id: string, address: string])[] = [
  [/^CC[ -]?BY[ -]?4\.0$/i, 'CC-BY-4.0', 'https://creativecommons.org/licenses/by/4.0/'],
  [/^CC[ -]?BY[ -]?SA[ -]?4\.0$/i, 'CC-BY-SA-4.0', 'https://creativecommons.org/licenses/by-sa/4.0/'],
  [/^CC[ -]?BY[ -]?NC[ -]?4\.0$/i, 'CC-BY-NC-4.0', 'https://creativecommons.org/licenses/by-nc/4.0/'],
  [
    /^CC[ -]?BY[ -]?NC[ -]?SA[ -]?4\.0$/i,
    'CC-BY-NC-SA-4.0',
    'https://creativecommons.org/licenses/by-nc-sa/4.0/',
  ],
  [/^(CC0|CC[ -]?0[ -]?1\.0)$/i, 'CC0-1.0', 'https://creativecommons.org/publicdomain/zero/1.0/'],
  [/^ODbL([ -]?1\.0)?$/i, 'ODbL-1.0', 'https://opendatacommons.org/licenses/odbl/1-0/'],
  [/^ODC[ -]?BY([ -]?1\.0)?$/i, 'ODC-By-1.0', 'https://opendatacommons.org/licenses/by/1-0/'],
];

/** A licence by its identifier, where it is one that is known; null otherwise. */
export function knownLicence(licence: string): { readonly id: string; readonly address: string } | null {
  const found = LICENCES.find(([written]) => written.test(licence.trim()));
  return found ? { id: found[1], address: found[2] } : null;
}
