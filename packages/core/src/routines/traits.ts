import type { Step, StepKind, StepParameters } from '@pebble/contract';
import { weaveSentence } from '../weaves/words';
import { counted, joinWith } from '../words/sentence';
import { withoutHands } from './withoutHands';
import { filterOfAnyone, withoutPeople } from './withoutPeople';

/** What a step makes that later steps can name. */
export type MadeThing = 'network' | 'source' | 'plate';

/** Parameters as they go along, and what of them did not. */
interface Carried<P> {
  readonly parameters: P;
  readonly left: readonly string[];
}

interface Goes<K extends StepKind> {
  readonly makes?: MadeThing;
  /** Whether another step of its kind on the same thing makes it be as if it had not been. */
  readonly isReplaced?: boolean;
  /** What steps after it may rest on, without naming it. */
  readonly prepares?: 'material' | 'network';
  carry?(parameters: StepParameters<K>): Carried<StepParameters<K>> | Stays;
  /** What it will do, behind "It will". */
  does(parameters: StepParameters<K>): string;
}

interface Stays {
  /** Why it cannot be run again on other data. */
  readonly why: string;
}

export type RoutineTrait<K extends StepKind = StepKind> = Goes<K> | Stays;

const OF_STUDY: Stays = { why: 'It is about this study, not about its messages.' };
const ONE_MESSAGE: Stays = { why: 'It is a decision about one message, which other data do not have.' };
const BY_HAND: Stays = { why: 'It was done by hand to nodes that other data do not have.' };
const OWN_GROUPS: Stays = { why: 'It names groups that are found otherwise in other data.' };
const TAKES_AWAY: Stays = { why: 'It takes something away that other data do not have.' };
const GOES_OUT: Stays = { why: 'What goes out is looked through each time.' };
const CODING: Stays = { why: 'Coding is done by people, message by message.' };

const quoted = (name: string): string => `“${name}”`;

/** Of every kind of step whether it can stand in a routine. */
const TRAITS: { readonly [K in StepKind]: RoutineTrait<K> } = {
  'create-study': OF_STUDY,
  'rename-study': OF_STUDY,
  'delete-study': OF_STUDY,
  'restore-study': OF_STUDY,
  'duplicate-study': OF_STUDY,
  'save-study': OF_STUDY,
  'archive-study': OF_STUDY,
  'open-study': OF_STUDY,
  'open-package': { why: 'A package holds a finished network; open it where it is needed.' },
  'import-source': {
    makes: 'source',
    prepares: 'material',
    does: ({ file, more }) => `take in ${joinWith('and', [file, ...more.map((one) => one.file)])}`,
  },
  'collect-source': {
    why: 'A collecting run asks a service. Collect anew on Gather, and run the routine in that study.',
  },
  'remove-source': TAKES_AWAY,
  'restore-source': TAKES_AWAY,
  'forget-account': TAKES_AWAY,
  'detect-languages': { why: 'It follows each import by itself.' },
  'set-language': ONE_MESSAGE,
  'mark-message': ONE_MESSAGE,
  'save-filter': {
    carry: ({ filter, ...parameters }) => {
      const { kept, left } = filterOfAnyone(filter);
      return { parameters: { ...parameters, filter: kept }, left };
    },
    does: ({ name }) => `keep the filter ${quoted(name)}`,
  },
  'forget-filter': TAKES_AWAY,
  'find-names': {
    prepares: 'material',
    does: ({ by }) => (by === 'list' ? 'find names of a list in the messages' : 'find names in the messages'),
  },
  'score-messages': { prepares: 'material', does: ({ scorer }) => `score the messages by ${scorer}` },
  tidy: {
    prepares: 'material',
    carry: (parameters) =>
      parameters.sort === 'account' || parameters.sort === 'name'
        ? { why: 'It names people. Give them by a table of categories, or decide anew.' }
        : { parameters, left: [] },
    does: ({ sort, decisions }) => `decide of ${counted(decisions.length, sort)} as before`,
  },
  'take-back-tidy': TAKES_AWAY,
  'categorise-by-rule': {
    prepares: 'material',
    does: ({ category, value }) => `give the category ${category} = ${value} by a rule`,
  },
  'categorise-by-table': { prepares: 'material', does: ({ file }) => `give categories from ${file}` },
  'import-network': { makes: 'network', does: ({ file }) => `take in the network in ${file}` },
  'add-node-details': { prepares: 'network', does: ({ file }) => `add what ${file} says of nodes` },
  'add-groups': { prepares: 'network', does: ({ file }) => `add the groups in ${file}` },
  weave: {
    makes: 'network',
    carry: ({ weave, ...parameters }) => {
      const { kept, left } = withoutPeople(weave);
      return { parameters: { ...parameters, weave: kept }, left };
    },
    does: ({ name, weave }) => `weave ${quoted(name)} (${lower(weaveSentence(weave)).replace(/\.$/, '')})`,
  },
  'weave-slices': {
    makes: 'network',
    carry: ({ weave, ...parameters }) => {
      const { kept, left } = withoutPeople(weave);
      return { parameters: { ...parameters, weave: kept }, left };
    },
    does: ({ name, by }) => `weave ${quoted(name)} and its slices by ${by}`,
  },
  'change-network': BY_HAND,
  'measure-network': {
    prepares: 'network',
    isReplaced: true,
    does: ({ settings }) => `measure it anew (resolution ${settings.resolution}, seed ${settings.seed})`,
  },
  'measure-betweenness': { prepares: 'network', isReplaced: true, does: () => 'measure betweenness' },
  'answer-questions': {
    prepares: 'network',
    carry: ({ shown, ...parameters }) => {
      if (!shown) return { parameters: { ...parameters, shown }, left: [] };
      const { kept, left } = withoutHands.ofShown(shown);
      return { parameters: { ...parameters, shown: kept }, left };
    },
    does: ({ questions }) => `answer ${counted(questions.length, 'question')} about its nodes`,
  },
  'describe-whole': { prepares: 'network', isReplaced: true, does: () => 'describe the whole network' },
  'group-nodes': {
    prepares: 'network',
    does: ({ name, settings }) =>
      `find groups ${quoted(name)} (${settings.method}, resolution ${settings.resolution}, seed ${settings.seed})`,
  },
  regroup: OWN_GROUPS,
  'split-group': OWN_GROUPS,
  'portray-groups': { prepares: 'network', does: ({ column }) => `portray the groups of ${quoted(column)}` },
  'note-group': OWN_GROUPS,
  'follow-groups': { prepares: 'network', does: () => 'follow its groups through time' },
  'edit-codebook': CODING,
  'import-codes': CODING,
  'draw-sample': CODING,
  'forget-sample': CODING,
  'code-message': CODING,
  'measure-agreement': CODING,
  'share-of-code': CODING,
  'mark-moment': { does: ({ name }) => `mark the moment ${quoted(name)}` },
  'forget-moment': TAKES_AWAY,
  'scan-resolutions': { does: () => 'try resolutions' },
  'test-removal': BY_HAND,
  'doubt-ranks': { prepares: 'network', does: ({ measure }) => `ask how sure ranks by ${measure} are` },
  'compute-column': { prepares: 'network', does: ({ name }) => `compute the column ${quoted(name)}` },
  'mark-nodes': BY_HAND,
  'mark-audience': { why: 'It names an audience of these data.' },
  'rename-network': OF_STUDY,
  'delete-network': TAKES_AWAY,
  'restore-network': TAKES_AWAY,
  'remove-for-good': TAKES_AWAY,
  'arrange-map': {
    prepares: 'network',
    isReplaced: true,
    carry: ({ layout, moved, ...parameters }) => ({
      parameters: {
        ...parameters,
        layout: { ...layout, begin: 'anew', centre: null },
        upload: null,
        iterations: null,
        moved: 0,
      },
      left: [
        ...(moved > 0 ? [`${counted(moved, 'node')} moved by hand`] : []),
        ...(layout.begin === 'as it is' ? ['that it went on from where nodes were'] : []),
        ...(layout.centre === null ? [] : ['which node stood in the middle']),
      ],
    }),
    does: ({ layout }) => `arrange the map (${layout.method.replaceAll('-', ' ')}, seed ${layout.seed})`,
  },
  'share-arrangement': { prepares: 'network', isReplaced: true, does: () => 'give its places to its slices' },
  'describe-map': {
    prepares: 'network',
    isReplaced: true,
    carry: ({ description, ...parameters }) => {
      const { kept, left } = withoutHands.ofMap(description);
      return { parameters: { ...parameters, description: kept }, left };
    },
    does: () => 'set what the map shows',
  },
  'keep-look': OF_STUDY,
  'forget-look': OF_STUDY,
  'add-pictures': { why: 'Pictures are those of accounts in these data; add them on the map.' },
  'remove-pictures': TAKES_AWAY,
  'keep-plate': {
    makes: 'plate',
    carry: ({ description, selection, view, moved, layout, ...parameters }) => {
      const { kept, left } = withoutHands.ofMap(description);
      return {
        parameters: {
          ...parameters,
          description: kept,
          layout: layout && { ...layout, begin: 'anew', centre: null },
          iterations: null,
          moved: 0,
          view: null,
          selection: null,
          upload: null,
          plate: null,
        },
        left: [
          ...left,
          ...(selection ? ['what was selected'] : []),
          ...(view ? ['which part of the map was seen'] : []),
          ...(moved > 0 ? [`${counted(moved, 'node')} moved by hand`] : []),
        ],
      };
    },
    does: ({ title }) => `keep the plate ${quoted(title)}`,
  },
  'name-plate': OF_STUDY,
  'duplicate-plate': OF_STUDY,
  'renew-plate': OF_STUDY,
  'order-plates': OF_STUDY,
  'choose-cover': OF_STUDY,
  'delete-plate': TAKES_AWAY,
  'restore-plate': TAKES_AWAY,
  'name-people': {
    prepares: 'material',
    isReplaced: true,
    carry: ({ keep, ...parameters }) => ({
      parameters: { ...parameters, keep: [] },
      left: keep.length > 0 ? [`${counted(keep.length, 'account')} who keep their names`] : [],
    }),
    does: ({ form }) => `call people ${form === 'as they are' ? form : `by pseudonyms (${form})`}`,
  },
  'forget-pseudonyms': TAKES_AWAY,
  'export-figure': GOES_OUT,
  'export-page': GOES_OUT,
  'export-report': GOES_OUT,
  'export-package': GOES_OUT,
  'export-network': GOES_OUT,
  'export-data': GOES_OUT,
  'export-run': GOES_OUT,
  'export-portraits': GOES_OUT,
};

/** Whether a kind of step can stand in a routine, with what it then does; otherwise why it cannot. */
export function routineTrait(kind: StepKind): RoutineTrait {
  return TRAITS[kind];
}

/** The number or id of what a step made, as its result says it; null where it made nothing. */
export function madeBy({ kind, result }: Pick<Step, 'kind' | 'result'>): string | number | null {
  const trait = routineTrait(kind);
  const made = 'makes' in trait && trait.makes ? result?.[trait.makes] : undefined;
  return typeof made === 'string' || typeof made === 'number' ? made : null;
}

function lower(sentence: string): string {
  return sentence.charAt(0).toLowerCase() + sentence.slice(1);
}
