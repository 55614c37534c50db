import { existsSync } from 'node:fs';
import { ImportMapping, type CollectPlan, type ImportReport, type Service } from '@pebble/contract';
import { formatCount, joinWith, periodPhrase } from '@pebble/core';
import { spoolPath } from '../../files/places';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';
import { importFiles, takenSentence } from './importFiles';

/** What a collecting run brought becomes a source of the study. */
export const collectSource: StepDefinition<'collect-source', ImportReport> = {
  kind: 'collect-source',
  async run(context, { run, name, service, notes }, progress) {
    const path = spoolPath(context.store.folder, run);
    if (!existsSync(path)) throw new StepRefused('What the run collected is no longer there.');
    // The spool stays until the step is committed: it is all there is.
    const files = [{ path, file: name, reading: readingOf(service) }];
    return importFiles(context, { files, name, notes, mayBeEmpty: true }, progress);
  },
  describe({ name, service, plan, requests }, report) {
    const what = `${planPhrase(plan)} from ${service.name} (${service.address})`;
    if (!report) return `“${name}”: ${what} was to be collected.`;
    return takenSentence(report, `collected by “${name}” (${what}) with ${formatCount(requests)} requests`);
  },
  followUps: ({ source, kept }) => (kept > 0 ? [{ kind: 'detect-languages', parameters: { source } }] : []),
};

/** Runs keep what they collect as objects of the service's standard, one a line. */
function readingOf({ kind }: Service): ImportMapping {
  return ImportMapping.parse({
    format: kind === 'hub' ? 'activities' : 'jmap',
    encoding: 'utf-8',
    delimiter: '\n',
    dateForm: 'iso',
    columns: [],
  });
}

/** What a plan asks for: "the search for “lamps”, at most 400 messages" */
function planPhrase(plan: CollectPlan): string {
  const names = (all: readonly string[]): string =>
    all.length > 4 ? `${all.slice(0, 3).join(', ')} and ${all.length - 3} others` : joinWith('and', all);
  switch (plan.what) {
    case 'search': {
      const language = plan.language === '' ? '' : `, language ${plan.language}`;
      const period =
        plan.from === null && plan.until === null ? '' : `, ${periodPhrase(plan.from, plan.until)}`;
      return `the search for “${plan.query}”${language}${period}, at most ${formatCount(plan.most)} messages`;
    }
    case 'posts':
      return `the posts of ${names(plan.accounts)}, at most ${formatCount(plan.most)} of each`;
    case 'comments':
      return `the first ${formatCount(plan.most)} comments by ${plan.order} under each of ${names(plan.items)}`;
    case 'followers':
      return `the followers of ${names(plan.accounts)}, at most ${formatCount(plan.most)} of each${plan.details ? ', with their details' : ''}`;
    case 'details':
      return `the details of ${formatCount(plan.accounts.length)} accounts`;
    case 'mail': {
      const words = plan.text === '' ? '' : ` with “${plan.text}”`;
      return `the emails${words}, ${periodPhrase(plan.from, plan.until)}, at most ${formatCount(plan.most)}`;
    }
  }
}
