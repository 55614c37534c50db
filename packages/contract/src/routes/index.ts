import type { DataKind } from '../dataExport';
import { collectingRoutes } from './collecting';
import { gatherRoutes } from './gather';
import { networkRoutes } from './networks';
import { peopleRoutes } from './people';
import { plateRoutes } from './plates';
import { readingRoutes } from './reading';
import { reportRoutes } from './reports';
import { routineRoutes } from './routines';
import { standingRoutes } from './standing';
import { stepRoutes } from './steps';
import { studyRoutes } from './studies';
import { tidyRoutes } from './tidy';

/** Everything that can be asked of the API, once. */
export const ROUTES = {
  ...studyRoutes,
  ...gatherRoutes,
  ...tidyRoutes,
  ...collectingRoutes,
  ...networkRoutes,
  ...peopleRoutes,
  ...plateRoutes,
  ...readingRoutes,
  ...reportRoutes,
  ...routineRoutes,
  ...standingRoutes,
  ...stepRoutes,
};

/** Where each kind of what a study holds is saved as a file. */
export const EXPORT_ROUTES = {
  messages: ROUTES.exportMessages,
  accounts: ROUTES.exportAccounts,
  items: ROUTES.exportItems,
  decisions: ROUTES.exportDecisions,
  codebook: ROUTES.exportCodebook,
  codings: ROUTES.exportCodings,
  pseudonyms: ROUTES.exportPseudonyms,
  logbook: ROUTES.exportLogbook,
} as const satisfies Readonly<Record<DataKind, unknown>>;

export { addressOf, API } from './address';
export {
  Bytes,
  Events,
  pathParts,
  type AnswerOf,
  type BodyOf,
  type PathOf,
  type PathPart,
  type QueryOf,
  type Route,
  type WrittenBodyOf,
} from './route';
