import type { Network, Source } from '@pebble/contract';
import type { PreparedMap } from '../map/scene/prepare';
import { counted, formatCount, joinWith } from '../words/sentence';

/** What a study was gathered from, and the networks that are told of. */
interface Told {
  readonly sources: readonly Source[];
  readonly networks: readonly Network[];
  readonly maps: readonly {
    readonly title: string;
    readonly network: Network;
    readonly map: Pick<PreparedMap, 'nodes' | 'edges' | 'description' | 'colourRange'>;
  }[];
}

/** What a study cannot tell, in sentences: what was left out, came twice or is missing, and what was not computed. */
export function limitSentences({ sources, networks, maps }: Told): string[] {
  return [
    ...(sources.length > 0
      ? [
          'This tells of what was gathered, not of all that was written: what had been deleted, was not public or was not asked for is in none of it.',
        ]
      : []),
    ...sources.flatMap(sourceLimits),
    ...networks.flatMap(networkLimits),
    ...maps.flatMap(mapLimits),
    ...unsureGroups(maps),
  ];
}

function sourceLimits({ name, report, removedAt }: Source): string[] {
  if (removedAt !== null) return [`“${name}” was taken out of the study and is in none of this.`];
  const { read, skipped, skippedByReason, unit, duplicates, duplicatesInFile, undated } = report;
  const twice = duplicates + duplicatesInFile;
  const reasons = skippedByReason.map(({ reason, rows }) => `${withoutEnd(reason)} (${formatCount(rows)})`);
  return [
    ...(skipped > 0
      ? [
          `Of ${counted(read, unit)} of “${name}” ${formatCount(skipped)} were left out: ${reasons.join('; ')}.`,
        ]
      : []),
    ...(twice > 0
      ? [
          `${counted(twice, unit)} of “${name}” ${twice === 1 ? 'was' : 'were'} there already, and count${twice === 1 ? 's' : ''} once.`,
        ]
      : []),
    ...(undated > 0
      ? [
          `${counted(undated, 'message')} of “${name}” ${undated === 1 ? 'has' : 'have'} no date, and ${undated === 1 ? 'is' : 'are'} in no period.`,
        ]
      : []),
    ...(report.parentsMissing > 0
      ? [
          `${counted(report.parentsMissing, 'message')} of “${name}” answer${report.parentsMissing === 1 ? 's' : ''} or pass${report.parentsMissing === 1 ? 'es' : ''} on messages that were not gathered.`,
        ]
      : []),
    ...(report.itemsMissing > 0
      ? [
          `${counted(report.itemsMissing, 'comment')} of “${name}” stand${report.itemsMissing === 1 ? 's' : ''} under items that were not gathered.`,
        ]
      : []),
    ...report.notes.map((note) => `“${name}”: ${note}`),
  ];
}

const withoutEnd = (sentence: string): string => sentence.replace(/\.$/, '');

function networkLimits({ name, weave, stale, forgotten }: Network): string[] {
  return [
    ...(weave === null
      ? [`“${name}” came finished from a file; there are no messages behind its ties.`]
      : []),
    ...(stale ? [`Other tidy decisions hold by now than when “${name}” was woven.`] : []),
    ...(forgotten > 0
      ? [
          `${counted(forgotten, 'person', 'people')} were taken out after “${name}” was woven, and it was not woven again.`,
        ]
      : []),
  ];
}

function mapLimits({ title, network, map }: Told['maps'][number]): string[] {
  const [nodes, edges] = [map.nodes.length, map.edges.length];
  if (nodes === network.nodes && edges === network.edges) return [];
  return [
    `“${title}” shows ${formatCount(nodes)} of ${counted(network.nodes, 'node')} and ${formatCount(edges)} of ${counted(network.edges, 'tie')}.`,
  ];
}

/** Columns of groups that a method finds by chance, and the name of the column that says how sure they are. */
function unsureGroups(maps: Told['maps']): string[] {
  const unsure = maps.filter(({ network: { columns, groupings }, map }) => {
    const { column } = map.description.colour;
    const isFound = column === 'community' || column in groupings;
    return map.colourRange === null && isFound && !columns.some(({ name }) => name === `${column}, sure`);
  });
  const names = [...new Set(unsure.map(({ network }) => `“${network.name}”`))];
  if (names.length === 0) return [];
  return [
    `How sure the groups of ${joinWith('and', names)} are was not computed: another run may put some nodes into other groups.`,
  ];
}
