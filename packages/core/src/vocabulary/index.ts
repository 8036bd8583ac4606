export * from './alike.ts';
