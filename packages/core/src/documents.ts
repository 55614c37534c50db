/** Reports as documents: an entry of its own, since the library that writes DOCX is large. */
export * from './report/composeReport';
export * from './report/report';
export * from './report/reportDocx';
export * from './report/reportHtml';
export * from './report/reportMarkdown';
