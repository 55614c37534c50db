import { ImportReport, type PageQuery, type SourcePage } from '@pebble/contract';
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
