export * from './fields.ts';
export * from './tree.ts';
export * from './parse.ts';
export * from './sought.ts';
