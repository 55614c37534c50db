import {
  GroupNotes,
  PortraitBody,
  PortraitHead,
  PortraitSettings,
  PortraitThing,
  type PortraitList,
  type TitlesByColumn,
} from '@pebble/contract';
import type { Store } from './open';

/** What portraits were drawn from: while all of it is the same, they say what is. */
export interface DrawnFrom {
  /** A hash of the group of each node. */
  readonly groups: string;
  /** Tidy decisions that held. */
  readonly decisions: readonly number[];
  /** The last step that changed messages. */
  readonly messages: number;
  /** The last step that changed what is coded; left out by older ones. */
  readonly codes?: number;
}

/** The portraits of a grouping as they are kept. */
interface PortraitSet extends Pick<PortraitList, 'messages' | 'nodes' | 'further'> {
  readonly step: number;
  readonly settings: PortraitSettings;
  readonly drawnFrom: DrawnFrom;
}

/** Keeps the portraits of a grouping in the place of those that were there. */
export async function keepPortraits(
  { query }: Store,
  network: string,
  column: string,
  { step, settings, drawnFrom, ...whole }: PortraitSet,
  bodies: readonly PortraitBody[],
): Promise<void> {
  const of = { network_id: network, grouping: column };
  for (const table of ['portrait', 'portrait_set'] as const)
    await query.deleteFrom(table).where('network_id', '=', network).where('grouping', '=', column).execute();
  await query
    .insertInto('portrait_set')
    .values({
      ...of,
      step_id: step,
      settings: JSON.stringify(settings),
      drawn_from: JSON.stringify(drawnFrom),
      whole: JSON.stringify(whole),
    })
    .execute();
  for (const [place, body] of bodies.entries())
    await query
      .insertInto('portrait')
      .values({
        ...of,
        value: body.group,
        place,
        head: JSON.stringify(PortraitHead.parse(body)),
        body: JSON.stringify(body),
      })
      .execute();
}

/** What was kept with the portraits of a grouping; null where there are none. */
export async function readPortraitSet(
  { query }: Store,
  network: string,
  column: string,
): Promise<PortraitSet | null> {
  const row = await query
    .selectFrom('portrait_set')
    .selectAll()
    .where('network_id', '=', network)
    .where('grouping', '=', column)
    .executeTakeFirst();
  if (!row) return null;
  return {
    ...(JSON.parse(row.whole) as Pick<PortraitSet, 'messages' | 'nodes' | 'further'>),
    step: row.step_id,
    settings: PortraitSettings.parse(JSON.parse(row.settings)),
    drawnFrom: JSON.parse(row.drawn_from) as DrawnFrom,
  };
}

/** The groups of a grouping that were portrayed, the largest first, with what was written about them. */
export async function readPortraitHeads(
  store: Store,
  network: string,
  column: string,
): Promise<PortraitList['groups']> {
  const rows = await store.query
    .selectFrom('portrait')
    .select(['value', 'head'])
    .where('network_id', '=', network)
    .where('grouping', '=', column)
    .orderBy('place')
    .execute();
  const notes = await notesIn(store, network, column);
  return rows.map(({ value, head }) => ({
    ...PortraitHead.parse(JSON.parse(head)),
    notes: notes.get(value) ?? GroupNotes.parse({}),
  }));
}

/** All that is kept of a group; null where it was not portrayed. */
export async function readPortraitBody(
  store: Store,
  network: string,
  column: string,
  group: string,
): Promise<(PortraitBody & { readonly notes: GroupNotes }) | null> {
  const row = await store.query
    .selectFrom('portrait')
    .select('body')
    .where('network_id', '=', network)
    .where('grouping', '=', column)
    .where('value', '=', group)
    .executeTakeFirst();
  if (!row) return null;
  const notes = await notesIn(store, network, column);
  return { ...PortraitBody.parse(withAllThings(row.body)), notes: notes.get(group) ?? GroupNotes.parse({}) };
}

/** A portrait that was drawn before something was told of says nothing of it. */
function withAllThings(json: string): unknown {
  const body = JSON.parse(json) as { readonly things: Partial<PortraitBody['things']> };
  const nothing = { typical: [], used: [], missing: [], ofFewAuthors: 0 };
  return {
    ...body,
    things: Object.fromEntries(PortraitThing.options.map((thing) => [thing, body.things[thing] ?? nothing])),
  };
}

async function notesIn(
  { query }: Store,
  network: string,
  column: string,
): Promise<ReadonlyMap<string, GroupNotes>> {
  const rows = await query
    .selectFrom('group_notes')
    .selectAll()
    .where('network_id', '=', network)
    .where('grouping', '=', column)
    .execute();
  return new Map(
    rows.map(({ value, title, memo, quotations }) => [
      value,
      { title, memo, quotations: JSON.parse(quotations) as number[] },
    ]),
  );
}

/** Keeps what was written about a group; nothing where all of it is empty. */
export async function keepGroupNotes(
  { query }: Store,
  network: string,
  column: string,
  group: string,
  { title, memo, quotations }: GroupNotes,
): Promise<void> {
  await query
    .deleteFrom('group_notes')
    .where('network_id', '=', network)
    .where('grouping', '=', column)
    .where('value', '=', group)
    .execute();
  if (title === '' && memo === '' && quotations.length === 0) return;
  const of = { network_id: network, grouping: column, value: group };
  await query
    .insertInto('group_notes')
    .values({ ...of, title, memo, quotations: JSON.stringify(quotations) })
    .execute();
}

/** What the groups of a network are called: as the researcher says, else as it suggests itself. */
export async function readTitles({ query }: Store, network: string): Promise<TitlesByColumn> {
  const titles: Record<string, Record<string, string>> = {};
  const call = (column: string, value: string, title: string): void => {
    (titles[column] ??= {})[value] = title;
  };
  const suggested = await query
    .selectFrom('portrait')
    .select((e) => [
      'grouping',
      'value',
      e.fn<string>('json_extract', ['head', e.val('$.suggested')]).as('title'),
    ])
    .where('network_id', '=', network)
    .orderBy('place')
    .execute();
  for (const { grouping, value, title } of suggested) call(grouping, value, title);
  const own = await query
    .selectFrom('group_notes')
    .select(['grouping', 'value', 'title'])
    .where('network_id', '=', network)
    .where('title', '<>', '')
    .execute();
  for (const { grouping, value, title } of own) call(grouping, value, title);
  return titles;
}

/** Takes away all portraits of a study, since messages are gone for good that stand in them; what was written about groups stays. */
export async function erasePortraits({ query }: Store): Promise<void> {
  await query.deleteFrom('portrait').execute();
  await query.deleteFrom('portrait_set').execute();
}
