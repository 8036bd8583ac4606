export * from './kinds.ts';
export * from './variables.ts';
export * from './names.ts';
export * from './dates.ts';
export * from './markup.ts';
export * from './record.ts';
export * from './line.ts';
