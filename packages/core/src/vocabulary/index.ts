export * from './alike.ts';
export { MOST_CONCEPTS, type Concept, type ReadVocabulary } from './concept.ts';
export { readSkos, writeSkos } from './skos.ts';
export { isRdf, readVocabularyTable, writeVocabularyTable } from './table.ts';
