export * from './fields.ts';
export * from './ranges.ts';
export * from './tree.ts';
export * from './parse.ts';
export * from './built.ts';
export * from './typing.ts';
export * from './sought.ts';
