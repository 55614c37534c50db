import type { NewDecision, RuleField, TidySort } from '@pebble/contract';
import { counted, fold, handleKey, hashtagKey, SORT_WORDS, isTakenColumn } from '@pebble/core';
import { nameKey } from '@pebble/core/files';
import { readProfiles } from '../../storage/accounts';
import { addDecisions } from '../../storage/decisions';
import type { Store } from '../../storage/open';
import { readThings, type SortedThings } from '../../storage/tidyThings';
import { uploadPath } from '../../files/places';
import { readNodeRows } from '../../intake/readNodeRows';
import { SkippedRows } from '../../intake/skippedRows';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Ruled extends Record<string, unknown> {
  /** Ids of the decisions, so that they can be taken back. */
  readonly decisions: readonly number[];
}

const FIELD_WORDS: Readonly<Record<RuleField, string>> = {
  label: 'what they are called',
  name: 'the name',
  description: 'the description',
  location: 'the location',
};

/** Gives a category to all things of which something contains one of some texts; the decisions are those of each thing. */
export const categoriseByRule: StepDefinition<'categorise-by-rule', Ruled> = {
  kind: 'categorise-by-rule',
  async run({ store, step, now }, { sort, field, contains, category, value }) {
    refuseTaken(category);
    const things = readThings(store, sort);
    const texts = await textsOf(store, things, sort, field);
    const sought = contains
      .split('|')
      .map((part) => fold(part))
      .filter((part) => part !== '');
    const found = things.keys.filter((_, i) => sought.some((part) => fold(texts[i]).includes(part)));
    if (found.length === 0)
      throw new StepRefused(
        `There is no ${SORT_WORDS[sort][0]} of which ${FIELD_WORDS[field]} contains that.`,
      );
    const verdict = { verdict: 'category', name: category, value } as const;
    const decisions = found.map((key): NewDecision => ({ key, verdict }));
    const ids = await addDecisions(store, step, sort, decisions);
    await store.query.updateTable('study').set({ changed_at: now }).execute();
    return { decisions: ids };
  },
  describe({ sort, field, contains, category, value }, result) {
    const rule = `those of which ${FIELD_WORDS[field]} contains “${contains}”`;
    return result
      ? `${counted(result.decisions.length, ...SORT_WORDS[sort])} (${rule}) ${result.decisions.length === 1 ? 'was' : 'were'} given the ${category} “${value}”.`
      : `The ${SORT_WORDS[sort][1]} were to be given the ${category} “${value}” by a rule.`;
  },
};

async function textsOf(
  store: Store,
  { ids, labels, personalNames }: SortedThings,
  sort: TidySort,
  field: RuleField,
): Promise<readonly string[]> {
  if (field === 'label') return labels;
  if (sort !== 'account')
    throw new StepRefused(`Only accounts have ${FIELD_WORDS[field]} that can be looked at.`);
  if (field === 'name') return personalNames.map((name) => name ?? '');
  const profiles = await readProfiles(store, ids);
  return ids.map((id) => profiles.get(id)?.[field] ?? '');
}

interface Tabled extends Ruled {
  readonly things: number;
  readonly categories: readonly string[];
  readonly read: number;
  readonly skipped: number;
  readonly notes: readonly string[];
}

/** Gives things the categories that a table names. */
export const categoriseByTable: StepDefinition<'categorise-by-table', Tabled> = {
  kind: 'categorise-by-table',
  async run({ store, files, step, now }, { sort, upload, file, reading }) {
    const skipped = new SkippedRows();
    const rows = readNodeRows(uploadPath(store.folder, upload), file, reading, skipped);
    const known = new Set(readThings(store, sort).keys);
    const unknown: string[] = [];
    const told = new Set<string>();
    const categories = new Set<string>();
    const decisions = rows.flatMap(({ key: typed, attributes }): NewDecision[] => {
      const key = keyOf(sort, typed);
      if (!known.has(key)) {
        unknown.push(typed);
        return [];
      }
      return Object.entries(attributes).map(([name, value]) => {
        refuseTaken(name);
        told.add(key);
        categories.add(name);
        return { key, verdict: { verdict: 'category', name, value: value.slice(0, 200) } };
      });
    });
    if (decisions.length === 0)
      throw new StepRefused(
        `None of the ${counted(rows.length, 'row')} in ${file} names one of the ${SORT_WORDS[sort][1]} of this study with a category. Nothing was changed.`,
        { file },
      );
    const ids = await addDecisions(store, step, sort, decisions);
    for (const name of unknown)
      skipped.add({ row: 0, field: null, reason: `“${name}” is none of the ${SORT_WORDS[sort][1]}.` });
    if (skipped.total > 0) files.skipped(skipped.csv);
    await store.query.updateTable('study').set({ changed_at: now }).execute();
    files.spend(upload);
    return {
      decisions: ids,
      things: told.size,
      categories: [...categories],
      read: rows.length,
      skipped: skipped.total,
      notes:
        unknown.length > 0
          ? [
              `${counted(unknown.length, 'row')} of the table fit none of the ${SORT_WORDS[sort][1]} and ${unknown.length === 1 ? 'is' : 'are'} listed.`,
            ]
          : [],
    };
  },
  describe({ sort, file }, result) {
    if (!result) return `Categories were to be taken from ${file}.`;
    const { things, categories, notes } = result;
    return [
      `${counted(things, ...SORT_WORDS[sort])} ${things === 1 ? 'was' : 'were'} given categories (${categories.join(', ')}) from ${file}.`,
      ...notes,
    ].join(' ');
  },
};

function keyOf(sort: TidySort, typed: string): string {
  switch (sort) {
    case 'account':
      return handleKey(typed);
    case 'hashtag':
      return hashtagKey(typed.replace(/^#/, ''));
    case 'name':
      return nameKey(typed);
    default:
      return typed.trim().toLowerCase();
  }
}

function refuseTaken(category: string): void {
  if (isTakenColumn(category) || category === 'kind')
    throw new StepRefused(
      `Every network has a column “${category}” of its own. Give the category another name.`,
    );
}
