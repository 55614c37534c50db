/** Reports and packages: an entry of its own, since the libraries that write them are large and only the server does. */
export * from './packing/citationFile';
export * from './packing/dataPackage';
export * from './packing/packed';
export * from './packing/provenance';
export * from './packing/roCrate';
export * from './report/composeReport';
export * from './report/report';
export * from './report/reportDocx';
export * from './report/reportHtml';
export * from './report/reportMarkdown';
