export * from './files';
export * from './sallowmere/accounts';
export * from './sallowmere/emails';
export * from './sallowmere/groups';
export * from './sallowmere/posts';
export * from './sallowmere/reelcove';
export * from './sallowmere/townspeople';
