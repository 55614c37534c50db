export * from './evidence';
export * from './gather';
export * from './map';
export * from './message';
export * from './problem';
export * from './steps';
export * from './study';
export * from './weave';
