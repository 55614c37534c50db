import type { Network, Source } from '@pebble/contract';
import { counted, formatCount, joinWith } from '../words/sentence';

/** What a study was gathered from, and the networks that are told of. */
interface Told {
  readonly sources: readonly Source[];
  readonly networks: readonly Network[];
}

/** What a study cannot tell, in sentences: what was left out, came twice or is missing, and what was not computed. */
export function limitSentences({ sources, networks }: Told): string[] {
  return [
    ...(sources.length > 0
      ? [
          'This tells of what was gathered, not of all that was written: what had been deleted, was not public or was not asked for is in none of it.',
        ]
      : []),
    ...sources.flatMap(sourceLimits),
    ...networks.flatMap(networkLimits),
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

function networkLimits({ name, weave, stale, forgotten, groupings }: Network): string[] {
  const unsure = Object.entries(groupings).filter(([, { stability }]) => stability === null);
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
    ...(unsure.length > 0
      ? [
          `How sure the groups of “${name}” are was not computed (${joinWith(
            'and',
            unsure.map(([column]) => `“${column}”`),
          )}): other runs may give others.`,
        ]
      : []),
  ];
}
