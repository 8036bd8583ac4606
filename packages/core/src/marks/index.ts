/** Marks on the pages of a document: their place, shape and sense. */
export * from './anchor.ts';
export * from './filter.ts';
export * from './quote.ts';
export * from './senses.ts';
export * from './shapes.ts';
export * from './turn.ts';
