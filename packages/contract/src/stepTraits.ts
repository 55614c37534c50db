import { StepKind } from './steps';

/** What of a study can be another after a step, by what is read together. */
export type StudyPart = 'study' | 'messages' | 'networks' | 'plates' | 'people';

interface StepTraits {
  /** What has to be read anew after it; the logbook always has it. */
  readonly changes: readonly StudyPart[];
  /** Whether its sentence says how the result was made, and so belongs into the methods text. */
  readonly inMethods: boolean;
}

const says = (...changes: StudyPart[]): StepTraits => ({ changes, inMethods: true });
const silent = (...changes: StudyPart[]): StepTraits => ({ changes, inMethods: false });

/** What each kind of step changes, and whether it stands in the methods text. */
export const STEP_TRAITS: Readonly<Record<StepKind, StepTraits>> = {
  'create-study': silent('study'),
  'rename-study': silent('study'),
  'delete-study': silent('study'),
  'restore-study': silent('study'),
  'duplicate-study': silent(),
  'save-study': silent(),
  'archive-study': silent(),
  'open-study': silent('study', 'messages', 'networks'),
  'import-source': says('study', 'messages'),
  'collect-source': says('study', 'messages'),
  'remove-source': says('study', 'messages'),
  'restore-source': says('study', 'messages'),
  'forget-account': says('study', 'messages', 'networks'),
  'detect-languages': silent('messages'),
  'set-language': silent('messages'),
  'mark-message': silent(),
  'save-filter': silent(),
  'forget-filter': silent(),
  'find-names': says('messages'),
  'score-messages': says('messages'),
  // Networks say whether other decisions hold than when they were woven.
  tidy: says('study', 'networks'),
  'take-back-tidy': says('study', 'networks'),
  'categorise-by-rule': says('study', 'networks'),
  'categorise-by-table': says('study', 'networks'),
  'import-network': says('study', 'networks'),
  'add-node-details': says('networks'),
  'add-groups': says('networks'),
  weave: says('study', 'networks'),
  'weave-slices': says('study', 'networks'),
  'change-network': says('study', 'networks'),
  'measure-network': says('networks'),
  'measure-betweenness': says('networks'),
  'answer-questions': says('networks'),
  'describe-whole': says('networks'),
  'group-nodes': says('networks'),
  regroup: says('networks'),
  'split-group': says('networks'),
  'portray-groups': says('networks'),
  'note-group': silent('networks'),
  'follow-groups': says('networks'),
  'edit-codebook': silent(),
  'import-codes': says(),
  'draw-sample': says(),
  'forget-sample': silent(),
  'code-message': silent(),
  'measure-agreement': says(),
  'share-of-code': says('networks'),
  'mark-moment': silent('study'),
  'forget-moment': silent('study'),
  'scan-resolutions': says(),
  'test-removal': says(),
  'doubt-ranks': says('networks'),
  'compute-column': says('networks'),
  'mark-nodes': says('networks'),
  'mark-audience': says('networks'),
  'rename-network': silent('networks'),
  'delete-network': silent('study', 'networks'),
  'restore-network': silent('study', 'networks'),
  'remove-for-good': silent('study', 'messages', 'networks'),
  'arrange-map': says(),
  'share-arrangement': silent('networks'),
  'describe-map': silent(),
  'name-people': says('people'),
  'forget-pseudonyms': silent('people'),
  'keep-plate': silent('plates'),
  'name-plate': silent('plates'),
  'duplicate-plate': silent('plates'),
  'renew-plate': silent('plates'),
  'order-plates': silent('plates'),
  'choose-cover': silent('study', 'plates'),
  'delete-plate': silent('plates'),
  'restore-plate': silent('plates'),
  'keep-look': silent(),
  'forget-look': silent(),
  'add-pictures': silent(),
  'remove-pictures': silent(),
  'export-figure': silent(),
  'export-page': silent(),
  'export-report': silent(),
  'export-network': silent(),
  'export-data': silent(),
  'export-portraits': silent(),
};

/** Steps that follow others by themselves: nobody who asked for them waits for their end. */
export const FOLLOWING: ReadonlySet<StepKind> = new Set([
  'detect-languages',
  'measure-network',
  'measure-betweenness',
  'portray-groups',
  'follow-groups',
]);

/** The kinds of step after which a part of a study has to be read anew. */
export function changing(part: StudyPart): StepKind[] {
  return StepKind.options.filter((kind) => STEP_TRAITS[kind].changes.includes(part));
}
