import { knownLicence, authorsOf, type PackedFile, type PackedTable, type PackedWork } from './packed';

const CSV = 'text/csv';

/**
 * The tables of a package as a Frictionless Data Package (specification 1, profile tabular-data-package for its CSV files): every column with
 * its type, what it says and how it was computed.
 * @param id a name of small letters, digits and "-"
 */
export function dataPackage(id: string, work: PackedWork, files: readonly PackedFile[]): object {
  const licence = knownLicence(work.licence);
  const contributors = authorsOf(work).map((title) => ({ title, role: 'author' }));
  return {
    profile: 'data-package',
    name: id,
    title: work.title,
    description: work.description,
    created: work.made,
    ...(licence ? { licenses: [{ name: licence.id, path: licence.address, title: work.licence }] } : {}),
    ...(contributors.length > 0 ? { contributors } : {}),
    resources: files.map(resource),
  };
}

function resource({ place, what, type, bytes, sha256, table }: PackedFile): object {
  const isTable = table !== undefined && type === CSV;
  return {
    name: isTable ? table.name : place.toLowerCase().replace(/[^a-z0-9._-]+/g, '-'),
    path: place,
    description: what,
    format: place.split('.').at(-1),
    mediatype: type,
    bytes,
    hash: `sha256:${sha256}`,
    ...(isTable
      ? { profile: 'tabular-data-resource', encoding: 'utf-8', schema: schema(table) }
      : { profile: 'data-resource' }),
  };
}

/** The columns of a table (Table Schema 1). */
function schema({ columns, primaryKey, foreignKeys = [] }: PackedTable): object {
  return {
    fields: columns.map(({ name, type, title, how }) => ({ name, type, title, description: how })),
    missingValues: [''],
    ...(primaryKey === undefined ? {} : { primaryKey }),
    ...(foreignKeys.length === 0
      ? {}
      : {
          foreignKeys: foreignKeys.map(({ field, table, of }) => ({
            fields: field,
            reference: { resource: table, fields: of },
          })),
        }),
  };
}
