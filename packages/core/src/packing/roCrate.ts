import { authorsOf, knownLicence, type PackedFile, type PackedWork } from './packed';

/** A package as an RO-Crate (1.1, https://w3id.org/ro/crate/1.1): the metadata file, the whole, each file, and who made it with what. */
export function roCrate(work: PackedWork, files: readonly PackedFile[]): object {
  const licence = knownLicence(work.licence);
  const authors = authorsOf(work).map((name, i) => ({ '@id': `#author-${i + 1}`, '@type': 'Person', name }));
  return {
    '@context': 'https://w3id.org/ro/crate/1.1/context',
    '@graph': [
      {
        '@id': 'ro-crate-metadata.json',
        '@type': 'CreativeWork',
        conformsTo: { '@id': 'https://w3id.org/ro/crate/1.1' },
        about: { '@id': './' },
      },
      {
        '@id': './',
        '@type': 'Dataset',
        name: work.title,
        description: work.description,
        datePublished: work.made.slice(0, 10),
        license: licence ? { '@id': licence.address } : work.licence || 'No licence is given.',
        ...(authors.length > 0 ? { author: authors.map(({ '@id': id }) => ({ '@id': id })) } : {}),
        hasPart: files.map(({ place }) => ({ '@id': encodeURI(place) })),
        mentions: [{ '@id': '#made' }],
      },
      ...(licence ? [{ '@id': licence.address, '@type': 'CreativeWork', name: work.licence }] : []),
      ...authors,
      { '@id': '#pebble-thread', '@type': 'SoftwareApplication', name: 'Pebble Thread' },
      {
        '@id': '#made',
        '@type': 'CreateAction',
        name: 'The map and its tables were made',
        endTime: work.made,
        instrument: { '@id': '#pebble-thread' },
        result: { '@id': './' },
      },
      ...files.map(({ place, what, type, bytes, sha256 }) => ({
        '@id': encodeURI(place),
        '@type': 'File',
        name: place,
        description: what,
        encodingFormat: type,
        contentSize: String(bytes),
        identifier: `sha256:${sha256}`,
      })),
    ],
  };
}
