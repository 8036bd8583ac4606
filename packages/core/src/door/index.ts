export * from './apart.ts';
export { seenInWords } from './words.ts';
