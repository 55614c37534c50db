import type { StepKind } from '@pebble/contract';
import { addGroups } from './addGroups';
import { addNodeDetails } from './addNodeDetails';
import { changeNetworkByHand } from './changeNetwork';
import { categoriseByRule, categoriseByTable } from './categorise';
import { computeColumn } from './computeColumn';
import { archiveStudy, duplicateStudy, openStudy, saveStudy } from './copySteps';
import { collectSource } from './collectSource';
import { detectLanguages } from './detectLanguages';
import { describeWhole } from './describeWhole';
import { doubtRanks } from './doubtRanks';
import { exportData, exportFigure, exportNetwork } from './exportSteps';
import { findNames } from './findNames';
import { forgetAccount } from './forgetAccount';
import { groupNodes } from './groupNodes';
import { regroup } from './regroup';
import { splitGroup } from './splitGroup';
import { scanResolutions } from './scanResolutions';
import { importSource } from './importSource';
import { importNetwork } from './importNetwork';
import { answerQuestions } from './answerQuestions';
import { addPictures, removePictures } from './pictureSteps';
import { forgetLook, keepLook } from './lookSteps';
import { arrangeMap, describeMap } from './mapSteps';
import { markNodes } from './markNodes';
import { measureBetweenness } from './measureBetweenness';
import { measureNetwork } from './measureNetwork';
import { deleteNetwork, renameNetwork, restoreNetwork } from './networkSteps';
import { forgetFilter, markMessage, saveFilter, setLanguage } from './readingSteps';
import { removeForGood } from './removeForGood';
import { removeSource, restoreSource } from './sourceSteps';
import { scoreMessages } from './scoreMessages';
import { shareArrangement } from './shareArrangement';
import type { StepDefinition } from './step';
import { createStudy, deleteStudy, renameStudy, restoreStudy } from './studySteps';
import { takeBackTidy, tidy } from './tidySteps';
import { testRemoval } from './testRemoval';
import { weave } from './weave';
import { weaveSlices } from './weaveSlices';

type Definitions = { readonly [K in StepKind]: StepDefinition<K, never> | StepDefinition<K> };

/** Every kind of step, by its kind. */
const definitions = {
  'create-study': createStudy,
  'rename-study': renameStudy,
  'delete-study': deleteStudy,
  'restore-study': restoreStudy,
  'duplicate-study': duplicateStudy,
  'save-study': saveStudy,
  'archive-study': archiveStudy,
  'open-study': openStudy,
  'import-source': importSource,
  'import-network': importNetwork,
  'add-groups': addGroups,
  'add-node-details': addNodeDetails,
  'collect-source': collectSource,
  'detect-languages': detectLanguages,
  'set-language': setLanguage,
  'mark-message': markMessage,
  'save-filter': saveFilter,
  'forget-filter': forgetFilter,
  'remove-source': removeSource,
  'restore-source': restoreSource,
  'forget-account': forgetAccount,
  'find-names': findNames,
  'score-messages': scoreMessages,
  tidy,
  'take-back-tidy': takeBackTidy,
  'categorise-by-rule': categoriseByRule,
  'categorise-by-table': categoriseByTable,
  weave,
  'weave-slices': weaveSlices,
  'share-arrangement': shareArrangement,
  'measure-network': measureNetwork,
  'measure-betweenness': measureBetweenness,
  'answer-questions': answerQuestions,
  'describe-whole': describeWhole,
  'group-nodes': groupNodes,
  regroup,
  'split-group': splitGroup,
  'scan-resolutions': scanResolutions,
  'test-removal': testRemoval,
  'doubt-ranks': doubtRanks,
  'compute-column': computeColumn,
  'mark-nodes': markNodes,
  'change-network': changeNetworkByHand,
  'rename-network': renameNetwork,
  'delete-network': deleteNetwork,
  'restore-network': restoreNetwork,
  'remove-for-good': removeForGood,
  'arrange-map': arrangeMap,
  'describe-map': describeMap,
  'keep-look': keepLook,
  'add-pictures': addPictures,
  'remove-pictures': removePictures,
  'forget-look': forgetLook,
  'export-figure': exportFigure,
  'export-network': exportNetwork,
  'export-data': exportData,
} satisfies { readonly [K in StepKind]: { readonly kind: K } } as unknown as Definitions;

/** The definition of a kind of step, as the runner sees it: parameters are parsed by the contract before they get here. */
export function stepDefinition(kind: StepKind): StepDefinition<StepKind> {
  return definitions[kind] as unknown as StepDefinition<StepKind>;
}
