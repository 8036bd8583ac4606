export * from './apart.ts';
export { MOST_TYPED } from './most.ts';
export { seenInWords } from './words.ts';
