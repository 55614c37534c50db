import { FollowSettings, THROUGH_TIME, type ColumnInfo, type Following } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { drawFollowing, lineName, mainLines, MOST_LINES } from '../../reading/drawFollowing';
import { nodeKeys } from '../../reading/nodeKeys';
import { readSliceGroups, sliceGroupsHash, type NumberedSlices } from '../../reading/sliceGroups';
import { keepFollowing } from '../../storage/following';
import { readTable } from '../../storage/files/tables';
import { keepGrouping } from '../../storage/groupings';
import { findNetwork, readMap, saveMap, slicesOfNetwork } from '../../storage/networks';
import { MOST_PORTRAYED } from '../measure/measureNetwork';
import type { StepContext, StepDefinition } from '../step';

interface Followed extends Record<string, unknown> {
  readonly network: string;
  readonly slices: number;
  readonly lines: number;
  readonly happenings: Readonly<Record<'begins' | 'splits' | 'joins' | 'ends', number>>;
  readonly portraitsFollow: boolean;
}

/** Follows the groups of a column from slice to slice: each line becomes a group of the slices, and of their whole. */
export const followGroupsThroughTime: StepDefinition<'follow-groups', Followed> = {
  kind: 'follow-groups',
  async run(context, { network, column, settings }, progress) {
    const { store, step } = context;
    const whole = await findNetwork(store, network);
    if (!whole) throw new StepRefused('This network is no longer there.');
    const ids = await slicesOfNetwork(store, network);
    if (ids.length < 2)
      throw new StepRefused(
        'Groups are followed from slice to slice: weave a network with at least two slices.',
      );
    if (column === THROUGH_TIME)
      throw new StepRefused('These groups are what was followed already. Choose others.');
    progress('Reading the groups', 0);
    const { numbered, without } = readSliceGroups(store, ids, column);
    if (without.length === ids.length)
      throw new StepRefused(`The slices have no column “${column}” by which their nodes fall into groups.`);
    if (without.length > 0)
      throw new StepRefused(
        `${counted(without.length, 'slice')} of ${ids.length} ${without.length === 1 ? 'has' : 'have'} no column “${column}”. Find these groups in every slice first.`,
      );
    progress('Following the groups', 0.3);
    const { body, lineOf } = drawFollowing(numbered, settings);
    const slices: Following['slices'] = [];
    for (const [s, id] of ids.entries()) {
      progress('Keeping what was found', 0.4 + (0.5 * s) / ids.length);
      const names = [...lineOf[s]].map((line) => (line < 0 ? '' : lineName(line)));
      await keepColumn(context, id, names, column, settings);
      await colourByLine(context, id, column);
      slices.push({
        network: id,
        title: (await findNetwork(store, id))?.slice?.title ?? '',
        nodes: names.length,
        followed: names.filter((name) => name !== '').length,
      });
    }
    await keepColumn(
      context,
      network,
      linesInWhole(context, network, ids, numbered, lineOf),
      column,
      settings,
    );
    await keepFollowing(
      store,
      network,
      { step, drawnFrom: sliceGroupsHash(store, ids, column) },
      { column, settings, slices, ...body },
    );
    return {
      network,
      slices: ids.length,
      lines: body.lines.length + body.further.lines,
      happenings: happeningsIn(body),
      portraitsFollow: whole.messages > 0 && whole.messages <= MOST_PORTRAYED,
    };
  },
  describe({ column, settings: { threshold, least, patience } }, result) {
    if (!result) return 'Groups were to be followed through time.';
    const { slices, lines, happenings } = result;
    const told = (['begins', 'splits', 'joins', 'ends'] as const)
      .filter((what) => happenings[what] > 0)
      .map((what) => `${formatCount(happenings[what])} ${PAST[what]}`);
    return (
      `Groups of “${column}” in ${counted(slices, 'slice')} were followed by the nodes that they share (Greene, Doyle & Cunningham 2010; Jaccard of at least ${threshold}, ` +
      `groups of at least ${counted(least, 'node')}, missing in at most ${counted(patience, 'slice')} on end): ${counted(lines, 'group')} through time` +
      `${told.length > 0 ? `, of which ${told.join(', ')}` : ''}.`
    );
  },
  followUps: ({ network, portraitsFollow }) =>
    portraitsFollow
      ? [
          {
            kind: 'portray-groups',
            parameters: { network, column: THROUGH_TIME, settings: { most: MOST_LINES } },
          },
        ]
      : [],
};

const PAST = {
  begins: 'began after the first slice',
  splits: 'split off from others',
  joins: 'went into others',
  ends: 'ended',
} as const;

function happeningsIn({ lines, groups }: Pick<Following, 'lines' | 'groups'>): Followed['happenings'] {
  const begun = groups.filter(({ happening, slice }) => happening === 'begins' && slice > 0);
  return {
    begins: begun.filter(({ splitFrom }) => splitFrom === null).length,
    splits: begun.filter(({ splitFrom }) => splitFrom !== null).length,
    joins: lines.filter(({ joined }) => joined !== null).length,
    ends: lines.filter(({ joined, hasEnded }) => hasEnded && joined === null).length,
  };
}

async function keepColumn(
  { store, files }: StepContext,
  network: string,
  values: readonly string[],
  column: string,
  { threshold }: FollowSettings,
): Promise<void> {
  const info: ColumnInfo = {
    name: THROUGH_TIME,
    title: 'group through time',
    type: 'category',
    how: `Groups of “${column}” followed from slice to slice by shared nodes (Jaccard of at least ${threshold}); 1 has most nodes over all slices.`,
  };
  files.table(network, 'nodes', { ...readTable(store.folder, network, 'nodes'), [THROUGH_TIME]: values });
  await keepGrouping(store, network, THROUGH_TIME, null, [info]);
}

/** The map of a slice that is coloured by the groups that are followed has the colours of lines: the same in every slice. */
async function colourByLine({ store }: StepContext, slice: string, column: string): Promise<void> {
  const { description } = await readMap(store, slice);
  if (description.colour.column !== column || Object.keys(description.colour.chosen).length > 0) return;
  const colour = { ...description.colour, column: THROUGH_TIME };
  await saveMap(store, slice, { description: { ...description, colour } });
}

/** For the whole: the line in which each node is in most slices. */
function linesInWhole(
  { store }: StepContext,
  network: string,
  ids: readonly string[],
  numbered: NumberedSlices,
  lineOf: readonly Int32Array[],
): string[] {
  const main = mainLines(numbered, lineOf);
  const lines = new Map<string, number>();
  ids.forEach((id, s) =>
    nodeKeys(store, id).forEach((key, v) => lines.set(key, main[numbered.slices[s].node[v]])),
  );
  return nodeKeys(store, network).map((key) => {
    const line = lines.get(key) ?? -1;
    return line < 0 ? '' : lineName(line);
  });
}
