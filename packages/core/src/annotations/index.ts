export * from './meaning.ts';
export * from './space.ts';
