import { StepKind } from './steps';

/** What of a study can be another after a step, by what is read together. */
export type StudyPart = 'study' | 'messages' | 'networks' | 'plates' | 'people';

interface StepTraits {
  /** What has to be read anew after it; the logbook always has it. */
  readonly changes: readonly StudyPart[];
  /** Where in the methods text its sentence belongs, which says how the result was made; null where it says nothing of that. */
  readonly chapter: Chapter | null;
}

/** Parts of the methods text, in the order in which they are read. */
export const CHAPTERS = ['material', 'tidying', 'network', 'people'] as const;
export type Chapter = (typeof CHAPTERS)[number];

const tells =
  (chapter: Chapter) =>
  (...changes: StudyPart[]): StepTraits => ({ changes, chapter });
const material = tells('material');
const tidying = tells('tidying');
const network = tells('network');
const silent = (...changes: StudyPart[]): StepTraits => ({ changes, chapter: null });

/** What each kind of step changes, and where it stands in the methods text. */
export const STEP_TRAITS: Readonly<Record<StepKind, StepTraits>> = {
  'create-study': silent('study'),
  'rename-study': silent('study'),
  'delete-study': silent('study'),
  'restore-study': silent('study'),
  'duplicate-study': silent(),
  'save-study': silent(),
  'archive-study': silent(),
  'open-study': silent('study', 'messages', 'networks'),
  'import-source': material('study', 'messages'),
  'collect-source': material('study', 'messages'),
  'remove-source': material('study', 'messages'),
  'restore-source': material('study', 'messages'),
  'forget-account': tidying('study', 'messages', 'networks'),
  'detect-languages': silent('messages'),
  'set-language': silent('messages'),
  'mark-message': silent(),
  'save-filter': silent(),
  'forget-filter': silent(),
  'find-names': material('messages'),
  'score-messages': material('messages'),
  // Networks say whether other decisions hold than when they were woven.
  tidy: tidying('study', 'networks'),
  'take-back-tidy': tidying('study', 'networks'),
  'categorise-by-rule': tidying('study', 'networks'),
  'categorise-by-table': tidying('study', 'networks'),
  'import-network': network('study', 'networks'),
  'add-node-details': network('networks'),
  'add-groups': network('networks'),
  weave: network('study', 'networks'),
  'weave-slices': network('study', 'networks'),
  'change-network': network('study', 'networks'),
  'measure-network': network('networks'),
  'measure-betweenness': network('networks'),
  'answer-questions': network('networks'),
  'describe-whole': network('networks'),
  'group-nodes': network('networks'),
  regroup: network('networks'),
  'split-group': network('networks'),
  'portray-groups': network('networks'),
  'note-group': silent('networks'),
  'follow-groups': network('networks'),
  'edit-codebook': silent(),
  'import-codes': material(),
  'draw-sample': material(),
  'forget-sample': silent(),
  'code-message': silent(),
  'measure-agreement': material(),
  'share-of-code': network('networks'),
  'mark-moment': silent('study'),
  'forget-moment': silent('study'),
  'scan-resolutions': network(),
  'test-removal': network(),
  'doubt-ranks': network('networks'),
  'compute-column': network('networks'),
  'mark-nodes': network('networks'),
  'mark-audience': network('networks'),
  'rename-network': silent('networks'),
  'delete-network': silent('study', 'networks'),
  'restore-network': silent('study', 'networks'),
  'remove-for-good': silent('study', 'messages', 'networks'),
  'arrange-map': network(),
  'share-arrangement': silent('networks'),
  'describe-map': silent(),
  'name-people': tells('people')('people'),
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
  'export-package': silent(),
  'open-package': network('study', 'networks', 'plates'),
  'export-network': silent(),
  'export-data': silent(),
  'export-run': silent(),
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
