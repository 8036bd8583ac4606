export * from './evidence.ts';
export * from './join.ts';
export * from './keys.ts';
export * from './fold.ts';
