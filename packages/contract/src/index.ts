/** What server and web say to each other: classes whose decorators both validate and describe. */
import 'reflect-metadata';
export * from './access.ts';
export * from './sources.ts';
export * from './places.ts';
export * from './gathering.ts';
export * from './reading.ts';
export * from './citing.ts';
export * from './changes.ts';
