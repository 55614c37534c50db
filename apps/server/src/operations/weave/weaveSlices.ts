import { LayoutSettings, type SliceBy } from '@pebble/contract';
import { counted, firstMap, formatCount, nodeWords, slicesOf, weaveSentence } from '@pebble/core';
import type { Store } from '../../storage/open';
import type { StudyWeave } from '../../weaving/kinds/kind';
import { fromStudy, NothingWoven } from '../../weaving/fromStudy';
import { measuredNext } from './measuredNext';
import { storeNetwork } from './storeNetwork';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

/** More slices than this are no series that one looks through. */
const MOST_SLICES = 120;

interface Sliced extends Record<string, unknown> {
  /** The network of the whole time. */
  readonly network: string;
  readonly slices: readonly string[];
  /** Titles of slices in which nothing is tied. */
  readonly empty: readonly string[];
  readonly nodes: number;
  readonly edges: number;
  readonly notes: readonly string[];
  readonly droppedBelowThreshold: number;
  readonly undated: number;
}

const EACH: Readonly<Record<SliceBy, string>> = {
  day: 'each day',
  week: 'each week',
  month: 'each month',
  event: 'the time before and after a moment',
};

/** A recipe becomes a network of the whole time and one for each part of it, which share one arrangement. */
export const weaveSlices: StepDefinition<'weave-slices', Sliced> = {
  kind: 'weave-slices',
  async run(context, { name, weave, by, event }, progress) {
    if (!('from' in weave))
      throw new StepRefused('Only what is woven from messages has a time that could be cut into slices.');
    const { from, until } = timeOf(context.store, weave);
    const parts = slicesOf(from, until, by, event);
    if (parts.length === 0)
      throw new StepRefused('The moment must lie within the time of the sentence. Nothing was woven.');
    if (parts.length > MOST_SLICES)
      throw new StepRefused(
        `This would give ${formatCount(parts.length)} slices; at most ${MOST_SLICES} can be woven. Choose longer slices, or a shorter time.`,
      );
    progress('Weaving the whole time', 0);
    const made = await fromStudy(context.store, weave);
    const sentence = weaveSentence(weave);
    const map = firstMap(weave, made.directed);
    const whole = await storeNetwork(context, { ...made, name, weave, sentence, map });
    const slices: string[] = [];
    const empty: string[] = [];
    for (const [i, part] of parts.entries()) {
      progress(part.title, (i + 1) / (parts.length + 1));
      const recipe = { ...weave, from: part.from, until: part.until };
      try {
        const slice = await fromStudy(context.store, recipe);
        const { network } = await storeNetwork(context, {
          ...slice,
          name: `${name}: ${part.title}`,
          weave: recipe,
          sentence: weaveSentence(recipe),
          map,
          slice: { of: whole.network, place: i, title: part.title },
        });
        slices.push(network);
      } catch (error) {
        if (!(error instanceof NothingWoven)) throw error;
        empty.push(part.title);
      }
    }
    const undated = context.store.raw
      .prepare('select count(*) from message where time is null')
      .pluck()
      .get() as number;
    return { ...whole, slices, empty, undated, notes: made.notes, droppedBelowThreshold: made.dropped };
  },
  describe({ weave, by }, result) {
    const head = `${weaveSentence(weave).slice(0, -1)}; the whole time and ${EACH[by]}`;
    if (!result) return `${head}.`;
    const { slices, empty, nodes, edges, droppedBelowThreshold: weak, notes, undated } = result;
    const none =
      empty.length > 0
        ? `; ${counted(empty.length, 'slice')} without a tie ${empty.length === 1 ? 'was' : 'were'} left out`
        : '';
    const dropped =
      weak > 0
        ? `; of the whole ${counted(weak, 'tie')} below the threshold ${weak === 1 ? 'was' : 'were'} left out`
        : '';
    const without =
      undated > 0
        ? [`${counted(undated, 'undated message')} ${undated === 1 ? 'is' : 'are'} in no slice.`]
        : [];
    const size = `${counted(nodes, ...nodeWords(weave))} and ${counted(edges, 'tie')}`;
    return [
      `${head}: ${size} in ${counted(slices.length, 'slice')}${none}${dropped}.`,
      ...notes,
      ...without,
    ].join(' ');
  },
  followUps: ({ network, edges, slices }) => [
    measuredNext({ network, edges }),
    {
      kind: 'arrange-map',
      parameters: { network, layout: LayoutSettings.parse({}), upload: null, iterations: null, moved: 0 },
    },
    ...slices.map((slice) => ({
      kind: 'measure-network' as const,
      parameters: { network: slice, settings: {} },
    })),
    { kind: 'share-arrangement', parameters: { network } },
    ...(slices.length > 1
      ? [{ kind: 'follow-groups' as const, parameters: { network, column: 'community', settings: {} } }]
      : []),
  ],
};

/** The time of a weave; without bounds that of all messages. */
function timeOf(
  { raw }: Store,
  weave: Extract<StudyWeave, { from: number | null }>,
): { from: number; until: number } {
  const [first, last] = raw.prepare('select min(time), max(time) from message').raw().get() as [
    number | null,
    number | null,
  ];
  const from = weave.from ?? first;
  const until = weave.until ?? (last === null ? null : last + 1);
  if (from === null || until === null || from >= until)
    throw new StepRefused('No message has a date, so that there is no time to be cut into slices.');
  return { from, until };
}
