/** The page that is cited, one thing everywhere: by the document's labels, the record, what is printed, or a person's word. */
export * from './cited.ts';
export * from './paragraphs.ts';
export * from './place.ts';
export * from './printed.ts';
export * from './read.ts';
export * from './runs.ts';
