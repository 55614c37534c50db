export * from './portraits/activity';
export * from './portraits/keyness';
export * from './portraits/messageGroups';
export * from './portraits/nearestMessages';
export * from './portraits/portraitSentence';
export * from './portraits/standing';
export * from './portraits/suggestTitles';
export * from './portraits/typicalThings';
