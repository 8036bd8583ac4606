/** Identifiers of works and people: finding them in text, one normal form for each, and their check digits. */
export * from './doi.ts';
export * from './isbn.ts';
export * from './others.ts';
