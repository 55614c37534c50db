/** Readers of files. An entry of its own, so that the interface, which reads none, need not carry them. */
export * from './formats/columns';
export * from './formats/csv';
export * from './formats/dates';
export * from './formats/edgeList';
export * from './formats/encoding';
export * from './formats/jsonLines';
export * from './formats/lines';
export * from './formats/posts';
export * from './formats/preview';
export * from './formats/record';
