export * from './files';
export * from './sallowmere/accounts';
export * from './sallowmere/groups';
export * from './sallowmere/posts';
