import { ImportReport, PageQuery, type Source, type SourcePage } from '@pebble/contract';
import type { Store } from './open';
import { readPage } from './pages';

/** What the messages of a study came from, in the order in which it came; also what was taken out and can be taken back. */
export async function readSources({ query }: Store, page: PageQuery): Promise<SourcePage> {
  const { rows, ...place } = await readPage(query.selectFrom('source').selectAll().orderBy('id'), page);
  const sources = rows.map((row) => ({
    id: row.id,
    name: row.name,
    format: row.format,
    step: row.step_id,
    report: ImportReport.parse(JSON.parse(row.report)),
    removedAt: row.removed_at,
  }));
  return { ...place, sources };
}

/** All of them. */
export async function everySource(store: Store): Promise<Source[]> {
  const all: Source[] = [];
  for (let total = 1; all.length < total;) {
    const page = await readSources(store, PageQuery.parse({ offset: all.length, limit: 200 }));
    if (page.sources.length === 0) break;
    all.push(...page.sources);
    total = page.total;
  }
  return all;
}
