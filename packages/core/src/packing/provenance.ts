import type { Source, Step } from '@pebble/contract';

/** What a record of a package tells of. */
export interface Traced {
  readonly title: string;
  readonly steps: readonly Step[];
  readonly sources: readonly Source[];
  readonly authors: readonly string[];
  /** Files of the package. */
  readonly places: readonly string[];
  /** When the package was made, RFC 3339. */
  readonly made: string;
}

type Records = Record<string, Record<string, unknown>>;

/**
 * How a package came about, as PROV-JSON (W3C Member Submission of 24 April 2013, of the PROV data model): sources and files are entities, steps
 * activities, each informed by the one before; people and the program are agents.
 */
export function provenance({ title, steps, sources, authors, places, made }: Traced): object {
  const entity: Records = {
    'pt:package': { 'prov:label': title, 'prov:type': { $: 'prov:Collection', type: 'prov:QUALIFIED_NAME' } },
    ...Object.fromEntries(sources.map(({ id, name }) => [`pt:source-${id}`, { 'prov:label': name }])),
    ...Object.fromEntries(places.map((place, i) => [`pt:file-${i + 1}`, { 'prov:label': place }])),
  };
  const activity: Records = Object.fromEntries(steps.map((step) => [idOf(step), told(step)]));
  const agent: Records = {
    'pt:program': {
      'prov:label': 'Pebble Thread',
      'prov:type': { $: 'prov:SoftwareAgent', type: 'prov:QUALIFIED_NAME' },
    },
    ...Object.fromEntries(
      authors.map((name, i) => [
        `pt:author-${i + 1}`,
        { 'prov:label': name, 'prov:type': { $: 'prov:Person', type: 'prov:QUALIFIED_NAME' } },
      ]),
    ),
  };
  const last = steps.at(-1);
  const bySource = new Map(sources.map((source) => [source.step, source.id]));
  return {
    prefix: {
      pt: 'urn:pebble-thread:',
      prov: 'http://www.w3.org/ns/prov#',
      xsd: 'http://www.w3.org/2001/XMLSchema#',
    },
    entity,
    activity,
    agent,
    used: relations(
      'used',
      steps.flatMap((step) => {
        const source = bySource.get(step.id);
        return source === undefined
          ? []
          : [{ 'prov:activity': idOf(step), 'prov:entity': `pt:source-${source}` }];
      }),
    ),
    wasInformedBy: relations(
      'after',
      steps.slice(1).map((step, i) => ({ 'prov:informed': idOf(step), 'prov:informant': idOf(steps[i]) })),
    ),
    wasGeneratedBy: relations(
      'made',
      last ? [{ 'prov:entity': 'pt:package', 'prov:activity': idOf(last), 'prov:time': made }] : [],
    ),
    hadMember: relations(
      'holds',
      places.map((_, i) => ({ 'prov:collection': 'pt:package', 'prov:entity': `pt:file-${i + 1}` })),
    ),
    wasAssociatedWith: relations(
      'with',
      steps.map((step) => ({ 'prov:activity': idOf(step), 'prov:agent': 'pt:program' })),
    ),
    wasAttributedTo: relations(
      'by',
      authors.map((_, i) => ({ 'prov:entity': 'pt:package', 'prov:agent': `pt:author-${i + 1}` })),
    ),
  };
}

const idOf = ({ id }: Pick<Step, 'id'>): string => `pt:step-${id}`;

function told({ kind, sentence, seed, startedAt, endedAt }: Step): Record<string, unknown> {
  return {
    'prov:startTime': startedAt,
    ...(endedAt === null ? {} : { 'prov:endTime': endedAt }),
    'prov:label': sentence,
    'pt:kind': kind,
    ...(seed === null ? {} : { 'pt:seed': { $: String(seed), type: 'xsd:unsignedInt' } }),
  };
}

/** Relations with names of their own, which stand for this document alone. */
function relations(name: string, all: readonly Record<string, unknown>[]): Records {
  return Object.fromEntries(all.map((one, i) => [`_:${name}-${i + 1}`, one]));
}
