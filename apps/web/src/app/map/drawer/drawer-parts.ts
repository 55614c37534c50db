export const DRAWER_TABS = [
  'accounts',
  'ties',
  'charts',
  'matrix',
  'questions',
  'ranks',
  'removal',
  'whole',
  'groups',
] as const;

/** What the drawer below the map can show. */
export type DrawerTab = (typeof DRAWER_TABS)[number];

/** What stands under one tab of the drawer. */
export interface DrawerPart {
  readonly title: string;
  readonly tabs: readonly DrawerTab[];
}

export const DRAWER_PARTS: readonly DrawerPart[] = [
  { title: 'Accounts', tabs: ['accounts'] },
  { title: 'Ties', tabs: ['ties'] },
  { title: 'Charts', tabs: ['charts', 'matrix'] },
  { title: 'Measures', tabs: ['questions', 'ranks', 'removal', 'whole'] },
  { title: 'Groups', tabs: ['groups'] },
];

export const DRAWER_NAMES: Readonly<Record<DrawerTab, string>> = {
  accounts: 'Accounts',
  ties: 'Ties',
  charts: 'Charts',
  matrix: 'Matrix',
  questions: 'By question',
  ranks: 'Ranking',
  removal: 'Removal',
  whole: 'Whole network',
  groups: 'Groups',
};
