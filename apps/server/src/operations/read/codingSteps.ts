import { AGREED } from '@pebble/contract';
import { counted, filterPhrase, formatCount, joinWith, Random } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { measureAgreement } from '../../reading/coding';
import { toldGroups } from '../../reading/groupsOf';
import { readSet } from '../../reading/messageSets';
import { keepCodes, keepCoding, keepSample, readCodes } from '../../storage/codings';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import type { Store } from '../../storage/open';
import { evidenceOf } from '../../weaving/evidenceOf';
import { checkMessage } from '../checkMessage';
import type { StepDefinition } from '../step';

interface Edited extends Record<string, unknown> {
  readonly codes: number;
  /** Codings that went with codes that are no longer there. */
  readonly gone: number;
}

/** The codes as they are from now on. */
export const editCodebook: StepDefinition<'edit-codebook', Edited> = {
  kind: 'edit-codebook',
  async run({ store }, { codes }) {
    const names = codes.map(({ name }) => name.toLowerCase());
    const twice = names.find((name, i) => names.indexOf(name) !== i);
    if (twice !== undefined) throw new StepRefused(`Two codes are called “${twice}”. Nothing was changed.`);
    const known = new Set((await readCodes(store)).map(({ id }) => id));
    if (codes.some(({ id }) => id !== null && !known.has(id)))
      throw new StepRefused(
        'One of the codes is no longer there: open the codebook anew. Nothing was changed.',
      );
    return { codes: codes.length, gone: await keepCodes(store, codes) };
  },
  describe({ codes }, result) {
    const head = `The codebook has ${counted(codes.length, 'code')}`;
    return result && result.gone > 0
      ? `${head}; ${counted(result.gone, 'coding')} went with codes that were taken out.`
      : `${head}.`;
  },
};

interface Drawn extends Record<string, unknown> {
  readonly sample: number;
  readonly messages: number;
  /** From how many it was drawn; and how many groups. */
  readonly of: number;
  readonly groups: number;
}

/** Draws messages that are to be coded, in an order by chance. */
export const drawSample: StepDefinition<'draw-sample', Drawn> = {
  kind: 'draw-sample',
  async run({ store, step }, { name, from, most, seed }) {
    const random = new Random(seed);
    const draw = (all: readonly number[]): number[] => random.sample(all.length, most).map((i) => all[i]);
    const sets = from.what === 'groups' ? await groupSets(store, from) : [await readSet(store, from)];
    const drawn = [...new Set(sets.flatMap(draw))];
    if (drawn.length === 0) throw new StepRefused('There are no messages to draw from. No sample was made.');
    // Groups are mixed, so that nobody codes one after the other.
    const mixed = random.sample(drawn.length, drawn.length).map((i) => drawn[i]);
    return {
      sample: await keepSample(store, step, name, mixed),
      messages: mixed.length,
      of: new Set(sets.flat()).size,
      groups: from.what === 'groups' ? sets.length : 0,
    };
  },
  describe({ name, from, most, seed }, result) {
    if (!result) return `A sample “${name}” was to be drawn.`;
    const { messages, of, groups } = result;
    const where =
      from.what === 'filter'
        ? ` (${filterPhrase(from.filter)})`
        : from.what === 'groups'
          ? `, at most ${formatCount(most)} of each of ${counted(groups, 'group')} of “${from.column}”`
          : '';
    return `${counted(messages, 'message')} of ${formatCount(of)} were drawn at random for coding as “${name}”${where} (seed ${seed}).`;
  },
  seed: ({ seed }) => seed,
};

/** The messages of each of the larger groups of a network. */
async function groupSets(
  store: Store,
  { network: id, column }: { readonly network: string; readonly column: string },
): Promise<number[][]> {
  const network = await findNetwork(store, id);
  const evidence = network && (await evidenceOf(store, network));
  if (!evidence) throw new StepRefused('There are no messages behind this network. No sample was made.');
  const nodes = readTable(store.folder, id, 'nodes', [column]);
  if (!(column in nodes)) throw new StepRefused(`The nodes have no column “${column}”. No sample was made.`);
  const told = toldGroups(nodes[column], MOST_GROUPS);
  const groups = evidence.grouped(told.of, told.names.length);
  return told.names.map((_, g) => groups.messagesOf(g));
}

const MOST_GROUPS = 40;

export const forgetSample: StepDefinition<'forget-sample'> = {
  kind: 'forget-sample',
  async run({ store }, { sample }) {
    await store.query.deleteFrom('sample_message').where('sample_id', '=', sample).execute();
    await store.query.deleteFrom('sample').where('id', '=', sample).execute();
    return {};
  },
  describe: ({ name }) => `The sample “${name}” was taken away; what was coded stays.`,
};

/** What a coder gives a message, in the place of what it had of them. */
export const codeMessage: StepDefinition<'code-message'> = {
  kind: 'code-message',
  async run(context, { message, coder, codes }) {
    const { store } = context;
    await checkMessage(context, message);
    const known = new Set((await readCodes(store)).map(({ id }) => id));
    if (codes?.some((code) => !known.has(code)))
      throw new StepRefused('One of the codes is no longer in the codebook. The message was not coded.');
    await keepCoding(store, message, coder, codes);
    return {};
  },
  describe: ({ message, coder, codes }) =>
    codes === null
      ? `What ${coder} gave message ${message} was taken back.`
      : coder === AGREED
        ? `It was agreed on ${counted(codes.length, 'code')} for message ${message}.`
        : `${coder} gave message ${message} ${counted(codes.length, 'code')}.`,
};

interface Measured extends Record<string, unknown> {
  readonly messages: number;
  readonly alike: number;
  readonly codes: readonly {
    readonly name: string;
    readonly kappa: number | null;
    readonly alpha: number | null;
    readonly interval: { readonly low: number; readonly high: number } | null;
  }[];
}

/** How far coders agree, kept in the logbook. */
export const measureAgreementOfCoders: StepDefinition<'measure-agreement', Measured> = {
  kind: 'measure-agreement',
  async run({ store }, asked) {
    const { messages, alike, codes } = await measureAgreement(store, asked);
    if (messages === 0)
      throw new StepRefused(
        'No message of the sample was coded by two of these coders yet. Nothing was measured.',
      );
    return {
      messages,
      alike,
      codes: codes.map(({ name, kappa, alpha, interval }) => ({ name, kappa, alpha, interval })),
    };
  },
  describe({ coders, runs, seed }, result) {
    if (!result) return 'How far coders agree was to be measured.';
    const { messages, alike, codes } = result;
    const value = (number: number | null): string => (number === null ? 'undefined' : number.toFixed(3));
    const each = codes.map(
      ({ name, kappa, alpha, interval }) =>
        `“${name}” alpha ${value(alpha)}${interval ? ` (${value(interval.low)} to ${value(interval.high)})` : ''}${coders.length === 2 ? `, kappa ${value(kappa)}` : ''}`,
    );
    return (
      `${counted(messages, 'message')} ${messages === 1 ? 'was' : 'were'} coded by ${joinWith('and', coders)}, each for itself; ${formatCount(alike)} got the same codes. ` +
      `Agreement by Krippendorff’s alpha for nominal values (2011)${coders.length === 2 ? ' and Cohen’s kappa (1960)' : ''}, intervals from ${formatCount(runs)} resamples (seed ${seed}): ${each.join('; ')}.`
    );
  },
  seed: ({ seed }) => seed,
};
