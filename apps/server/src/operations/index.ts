import type { StepKind } from '@pebble/contract';
import { addGroups } from './weave/addGroups';
import { addNodeDetails } from './weave/addNodeDetails';
import { changeNetworkByHand } from './weave/changeNetwork';
import { categoriseByRule, categoriseByTable } from './tidy/categorise';
import { computeColumn } from './measure/computeColumn';
import { archiveStudy, duplicateStudy, openStudy, saveStudy } from './study/copySteps';
import { collectSource } from './gather/collectSource';
import { detectLanguages } from './gather/detectLanguages';
import { describeWhole } from './measure/describeWhole';
import { bootstrapRanks } from './measure/bootstrapRanks';
import {
  exportData,
  exportFigure,
  exportNetwork,
  exportPackage,
  exportPage,
  exportReport,
  exportRun,
} from './export/exportSteps';
import { findNames } from './gather/findNames';
import { forgetAccount } from './gather/forgetAccount';
import { groupNodes } from './measure/groupNodes';
import { regroup } from './measure/regroup';
import { exportPortraits } from './read/exportPortraits';
import { followGroupsThroughTime } from './read/followGroups';
import {
  codeMessage,
  drawSample,
  editCodebook,
  forgetSample,
  measureAgreementOfCoders,
} from './read/codingSteps';
import { importCodes } from './read/importCodes';
import { shareOfCode } from './read/shareOfCode';
import { forgetMoment, markMoment } from './read/momentSteps';
import { noteGroup } from './read/noteGroup';
import { portrayGroups } from './read/portrayGroups';
import { splitGroup } from './measure/splitGroup';
import { scanResolutions } from './measure/scanResolutions';
import { importSource } from './gather/importSource';
import { importNetwork } from './weave/importNetwork';
import { answerQuestions } from './measure/answerQuestions';
import { addPictures, removePictures } from './map/pictureSteps';
import { forgetLook, keepLook } from './map/lookSteps';
import { forgetPseudonyms, namePeople } from './people/peopleSteps';
import {
  chooseCoverPlate,
  deletePlate,
  duplicatePlate,
  keepPlate,
  namePlate,
  orderPlates,
  renewPlate,
  restorePlate,
} from './plates/plateSteps';
import { arrangeMap, describeMap } from './map/mapSteps';
import { markAudience } from './measure/markAudience';
import { markNodes } from './measure/markNodes';
import { measureBetweenness } from './measure/measureBetweenness';
import { measureNetwork } from './measure/measureNetwork';
import { deleteNetwork, renameNetwork, restoreNetwork } from './weave/networkSteps';
import { forgetFilter, markMessage, saveFilter, setLanguage } from './gather/readingSteps';
import { removeForGood } from './study/removeForGood';
import { removeSource, restoreSource } from './gather/sourceSteps';
import { scoreMessages } from './gather/scoreMessages';
import { shareArrangement } from './map/shareArrangement';
import type { StepDefinition } from './step';
import { createStudy, deleteStudy, renameStudy, restoreStudy } from './study/studySteps';
import { takeBackTidy, tidy } from './tidy/tidySteps';
import { testRemoval } from './measure/testRemoval';
import { openPackage } from './weave/openPackage';
import { weave } from './weave/weave';
import { weaveSlices } from './weave/weaveSlices';

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
  'portray-groups': portrayGroups,
  'note-group': noteGroup,
  'follow-groups': followGroupsThroughTime,
  'edit-codebook': editCodebook,
  'import-codes': importCodes,
  'draw-sample': drawSample,
  'forget-sample': forgetSample,
  'code-message': codeMessage,
  'measure-agreement': measureAgreementOfCoders,
  'share-of-code': shareOfCode,
  'mark-moment': markMoment,
  'forget-moment': forgetMoment,
  'export-portraits': exportPortraits,
  'scan-resolutions': scanResolutions,
  'test-removal': testRemoval,
  'doubt-ranks': bootstrapRanks,
  'compute-column': computeColumn,
  'mark-nodes': markNodes,
  'mark-audience': markAudience,
  'change-network': changeNetworkByHand,
  'rename-network': renameNetwork,
  'delete-network': deleteNetwork,
  'restore-network': restoreNetwork,
  'remove-for-good': removeForGood,
  'arrange-map': arrangeMap,
  'describe-map': describeMap,
  'name-people': namePeople,
  'forget-pseudonyms': forgetPseudonyms,
  'keep-plate': keepPlate,
  'name-plate': namePlate,
  'duplicate-plate': duplicatePlate,
  'renew-plate': renewPlate,
  'order-plates': orderPlates,
  'choose-cover': chooseCoverPlate,
  'delete-plate': deletePlate,
  'restore-plate': restorePlate,
  'keep-look': keepLook,
  'add-pictures': addPictures,
  'remove-pictures': removePictures,
  'forget-look': forgetLook,
  'export-figure': exportFigure,
  'export-page': exportPage,
  'export-report': exportReport,
  'export-package': exportPackage,
  'open-package': openPackage,
  'export-network': exportNetwork,
  'export-data': exportData,
  'export-run': exportRun,
} satisfies { readonly [K in StepKind]: { readonly kind: K } } as unknown as Definitions;

/** The definition of a kind of step, as the runner sees it: parameters are parsed by the contract before they get here. */
export function stepDefinition(kind: StepKind): StepDefinition<StepKind> {
  return definitions[kind];
}
